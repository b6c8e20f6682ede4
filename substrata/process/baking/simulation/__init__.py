"""Heat and water in one column of cells: properties, equations, integrator, surfaces.

It does not know formulas; arrays in, arrays out.
Begin with ``stage_simulation.py``.
"""
