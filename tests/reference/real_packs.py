"""Labels as real packs print them: medians of USDA FDC Branded (October 2024), rounded to a serving."""

import csv
from pathlib import Path

from substrata.ingredients.labels.label_rounding import printed
from substrata.ingredients.printed_label import Label

FIGURES = ("energy_kcal", "protein_g", "fat_g", "saturates_g", "carbohydrate_g", "fibre_g", "sugars_g", "sodium_mg")


def median_labels(fewest=3):
    """(ingredient, item, label) of every kind of pack that was seen often enough."""
    text = Path(__file__).with_name("label_ranges.csv").read_text(encoding="utf8")
    for row in csv.DictReader(text.splitlines()):
        if int(row["n"]) < fewest:
            continue
        grams, figures = float(row["serving_g"]), {}
        for key in FIGURES:
            values = row[key].split("/")
            if row[key] and len(values) != 2:  # two values are two packs, no median
                figures[key] = printed("us", key, float(values[len(values) // 2]) * grams / 100)
        label = Label(style="us", per_g=grams, per_digit_g=1.0 if grams >= 1 else 0.1, figures=figures)
        yield row["ingredient"], row["item"], label
