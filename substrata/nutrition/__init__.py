"""Net carbohydrate, panels, ingredient statement, allergens, claims, daily limits and water activity of a batch.

It does not know the oven model; baked weights are passed in.
Begin with ``net_carbs.py`` and ``nutrition_facts.py``.
"""
