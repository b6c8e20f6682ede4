"""The twelve-line formula that the measurements use."""

LINES = {
    "celeriac-boiled": 240, "hazelnut-meal": 90, "sesame-flour-defatted": 32, "psyllium-powder": 18, "egg": 100,
    "gruyere": 70, "water": 60, "olive-oil": 14, "baking-powder": 5, "salt": 4, "caraway": 2, "cider-vinegar": 5,
}  # fmt: skip

TWELVE_LINES = {
    "substrata": 1,
    "name": "Twelve lines",
    "form": {"kind": "thin-crust", "pieces": 6},
    "lines": [{"id": key, "ingredient": key, "grams": grams, "entered": f"{grams} g"} for key, grams in LINES.items()],
    "targets": {},
}
