"""A simulated bake: heat and water in a dough computed from its own formula, cell by cell."""
