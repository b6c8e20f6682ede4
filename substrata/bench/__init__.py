"""Doing a formula: its steps, weighing, advice by feel, the live bake, and the log of what was really done."""
