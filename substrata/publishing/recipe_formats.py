"""A recipe as text, Markdown, CSV and schema.org JSON-LD."""

from __future__ import annotations

import csv
import io
import json
from typing import Any

from substrata.base.messages.message import Wording
from substrata.formula.exchange.spreadsheet_cells import safe_cell
from substrata.publishing.recipe import Recipe, RecipeLine

TEXT_STYLES = ("text", "markdown", "csv", "jsonld")
COLUMNS = ("group", "ingredient", "grams", "measure", "note")
# Figures of a panel by schema.org's names.
_SCHEMA = {
    "Calories": "calories", "Energy": "calories", "Total Fat": "fatContent", "Fat": "fatContent", "Saturated Fat": "saturatedFatContent",
    "of which saturates": "saturatedFatContent", "Trans Fat": "transFatContent", "Cholesterol": "cholesterolContent",
    "Sodium": "sodiumContent", "Total Carbohydrate": "carbohydrateContent", "Carbohydrate": "carbohydrateContent",
    "Dietary Fiber": "fiberContent", "Fiber": "fiberContent", "Total Sugars": "sugarContent", "of which sugars": "sugarContent",
    "Protein": "proteinContent",
}  # fmt: skip


def written(recipe: Recipe, style: str) -> str:
    """Return a recipe in one of ``TEXT_STYLES``."""
    return {"text": as_text, "markdown": as_markdown, "csv": as_csv, "jsonld": as_jsonld}[style](recipe)


def ingredient_text(line: RecipeLine) -> str:
    """Return an ingredient as one line, as 160 g almond flour, blanched (1½ cups)."""
    measure = f" ({line.measure}{'; weigh it' if line.weigh_it else ''})" if line.measure else ""
    return f"{line.amount} {line.name[:1].lower()}{line.name[1:]}{measure}"


def as_text(recipe: Recipe) -> str:
    """Plain text, one ingredient a line: what is pasted in again is read."""
    rows = [recipe.name, "", f"Pieces: {recipe.pieces:g}", ""]
    for group in recipe.groups:
        rows += [f"{group.title}:", *(f"- {ingredient_text(line)}" for line in group.lines), ""]
    rows += ["Method:", *(f"{n}. {step.text}" for n, step in enumerate(recipe.steps, 1)), ""]
    if recipe.variants:
        rows += ["Variants:", *(f"- {variant.name}: {variant.text}" for variant in recipe.variants), ""]
    rows += [
        str(recipe.keeping.text),
        "",
        *([str(recipe.incomplete)] if recipe.incomplete else []),
        f"Net carbs {recipe.net_carbs} per piece ({recipe.net_rule}).",
    ]
    if recipe.allergens:
        rows.append(f"Allergens: {', '.join(recipe.allergens)}.")
    rows += ["", *map(str, recipe.cautions)]
    if recipe.notes:
        rows += ["", recipe.notes]
    return "\n".join(rows).strip() + "\n"


def as_markdown(recipe: Recipe) -> str:
    """Markdown."""
    rows = [
        f"# {_plain(recipe.name)}",
        "",
        f"{recipe.yields}. {recipe.net_carbs} net carbs a piece ({recipe.net_rule}). {recipe.incomplete}".rstrip(),
    ]
    for group in recipe.groups:
        rows += ["", f"## {_plain(group.title)}", "", "| amount | measure | ingredient |", "|--:|:--|:--|"]
        rows += [
            f"| {line.amount} | {line.measure}{' (weigh it)' if line.weigh_it else ''} | {_plain(line.name)}{f', {_plain(line.note)}' if line.note else ''} |"
            for line in group.lines
        ]
    rows += ["", "## Method", "", *(f"{n}. {_plain(step.text)}" for n, step in enumerate(recipe.steps, 1))]
    if recipe.variants:
        rows += ["", "## Variants", "", *(f"- **{_plain(v.name)}**: {_plain(v.text)}" for v in recipe.variants)]
    rows += ["", "## Keeping", "", str(recipe.keeping.text), "", "## Figures", "", "| | a piece |", "|:--|--:|"]
    rows += [f"| {name} | {piece} |" for name, piece, _ in recipe.figures]
    if recipe.allergens:
        rows += ["", f"**Allergens:** {', '.join(recipe.allergens)}"]
    rows += ["", *(f"> {caution}" for caution in recipe.cautions)]
    return "\n".join(rows) + "\n"


def _plain(text: Wording) -> str:
    """Text that Markdown leaves alone."""
    text = str(text)
    for mark in ("\\", "`", "*", "_", "|", "<", "["):
        text = text.replace(mark, f"\\{mark}")
    return " ".join(text.split())


def as_csv(recipe: Recipe) -> str:
    """Return a table of the ingredients."""
    out = io.StringIO()
    table = csv.writer(out)
    table.writerow(COLUMNS)
    for row in ingredient_rows(recipe):
        table.writerow(row)
    return out.getvalue()


def ingredient_rows(recipe: Recipe) -> list[list[Any]]:
    """Return the ingredients as rows of ``COLUMNS``; no cell is taken for a formula of a sheet."""
    return [
        [
            safe_cell(str(group.title)),
            safe_cell(line.name),
            line.grams,
            safe_cell(line.measure),
            safe_cell(str(line.note)),
        ]
        for group in recipe.groups
        for line in group.lines
    ]


def as_jsonld(recipe: Recipe) -> str:
    """schema.org's Recipe (schema.org/Recipe), with minutes as ISO 8601 durations."""
    nutrition: dict[str, str] = {"@type": "NutritionInformation", "servingSize": "1 piece"}
    for name, piece, _ in recipe.figures:
        if name in _SCHEMA and piece:
            nutrition[_SCHEMA[name]] = piece
    whole: dict[str, Any] = {
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": recipe.name,
        "recipeYield": f"{recipe.pieces:g} pieces",
        "recipeCategory": recipe.form,
        "recipeIngredient": [ingredient_text(line) for group in recipe.groups for line in group.lines],
        "recipeInstructions": [
            {"@type": "HowToStep", "position": n, "name": step.title, "text": step.text}
            for n, step in enumerate(recipe.steps, 1)
        ],
        "totalTime": f"PT{recipe.work_min:.0f}M",
        "nutrition": nutrition,
    }
    if recipe.bake_min:
        whole["cookTime"] = f"PT{recipe.bake_min:.0f}M"
    if recipe.notes:
        whole["description"] = recipe.notes
    return json.dumps(whole, ensure_ascii=False, indent=1)
