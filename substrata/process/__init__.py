"""The physics, one folder for each step of the work: preparation, rheology, shaping, baking.

It does not know targets, warnings or people.
Begin with the folder of the step.
"""
