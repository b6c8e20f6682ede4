"""The dough at rest: water, binder, lift, salt and sweetness (the equilibrium part)."""
