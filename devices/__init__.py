"""Bench devices: a simulated scale and probe that ship with the app, and the bridge that reads them and real ones."""
