"""Weighed lines and every sum over them: propagation of spread, cost, baker's percentages, what the oven leaves."""
