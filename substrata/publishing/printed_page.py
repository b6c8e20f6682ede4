"""A recipe as a printed page, and the label of a pack: HTML that is set as PDF."""

from __future__ import annotations

from html import escape
from typing import Literal

from substrata.publishing.premix import PremixBags
from substrata.publishing.recipe import Recipe
from substrata.publishing.recipe_formats import ingredient_text
from substrata.publishing.sale_label import PackLabel

Paper = Literal["a4", "letter", "a6"]
PAPERS: tuple[Paper, ...] = ("a4", "letter", "a6")
_SIZES = {"a4": "A4", "letter": "Letter", "a6": "A6"}
_STYLE = """
@media screen { body { max-width: 760px; margin: 0 auto; padding: 18px 20px 50px; font-size: 16px } }
@page { size: %(size)s; margin: %(margin)s; @bottom-right { content: counter(page) " / " counter(pages); font-size: 7pt; color: #635a4f } }
body { font-family: 'Atkinson Hyperlegible Next', 'DejaVu Sans', sans-serif; font-size: %(text)s; line-height: 1.35; color: #2b2620 }
h1 { font-size: 1.9em; margin: 0 0 .1em } h2 { font-size: 1.1em; margin: .9em 0 .2em; border-bottom: .4pt solid #c4b8a2 }
.sub { color: #635a4f; margin: 0 0 .6em } table { border-collapse: collapse; width: 100%% } td { padding: .12em .4em .12em 0; vertical-align: top }
td.g { text-align: right; white-space: nowrap; font-variant-numeric: tabular-nums; width: 4.2em } td.m { color: #635a4f; white-space: nowrap; width: 8em }
ol { margin: .2em 0; padding-left: 1.4em } li { margin-bottom: .25em } .two { display: flex; gap: 2em } .two > * { flex: 1 }
.caution { font-size: .85em; color: #635a4f; margin: .15em 0 } .weigh { color: #96391f } .part { color: #635a4f; font-size: .85em }
"""


def recipe_html(recipe: Recipe, paper: Paper = "a4") -> str:
    """Return the page as HTML; every text of the formula is text, never markup."""
    small = paper == "a6"
    style = _STYLE % {
        "size": _SIZES[paper],
        "margin": "8mm" if small else "16mm 15mm",
        "text": "7.5pt" if small else "10pt",
    }
    groups = "".join(
        f"<h2>{escape(str(group.title))}</h2><table>"
        + "".join(
            f'<tr><td class="g">{line.grams:g} g</td><td class="m">{escape(line.measure)}'
            f"{' <span class=weigh>weigh it</span>' if line.weigh_it else ''}</td>"
            f"<td>{escape(line.name)}{f', {escape(str(line.note))}' if line.note else ''}</td></tr>"
            for line in group.lines
        )
        + "</table>"
        for group in recipe.groups
    )
    heads = [s.title if n == 0 or recipe.steps[n - 1].title != s.title else "" for n, s in enumerate(recipe.steps)]
    steps = "".join(
        f"<li>{f'<b>{escape(head)}.</b> ' if head else ''}{escape(s.text)}</li>"
        for head, s in zip(heads, recipe.steps, strict=True)
    )
    figures = "".join(
        f'<tr><td>{escape(n)}</td><td class="g">{escape(p)}</td><td class="g">{escape(h)}</td></tr>'
        for n, p, h in recipe.figures
    )
    cautions = "".join(f'<p class="caution">{escape(str(text))}</p>' for text in recipe.cautions)
    allergens = f"<p><b>Allergens:</b> {escape(', '.join(recipe.allergens))}</p>" if recipe.allergens else ""
    price = f" · {escape(str(recipe.cost))}" if recipe.cost else ""
    items = "".join(f"<li><b>{escape(v.name)}</b>: {escape(str(v.text))}</li>" for v in recipe.variants)
    variants = f"<h2>Variants</h2><ul>{items}</ul>" if items else ""
    return (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>{escape(recipe.name)}</title><style>{style}</style></head><body>'
        f'<h1>{escape(recipe.name)}</h1><p class="sub">{escape(recipe.form)} · {escape(str(recipe.yields))} · '
        f"<b>{escape(str(recipe.net_carbs))} net carbs a piece</b> ({escape(str(recipe.net_rule))}){price}</p>"
        f"{_incomplete(recipe)}{groups}<h2>Method</h2><ol>{steps}</ol>{variants}<h2>Keeping</h2><p>{escape(str(recipe.keeping.text))}</p>"
        f"<h2>Figures</h2><table>{figures}</table>{allergens}{cautions}</body></html>"
    )


def label_html(label: PackLabel, size: tuple[float, float]) -> str:
    """Return the label of a pack, width and height in millimetres."""
    width, height = size
    statement = "".join(f"<b>{escape(p.text)}</b>" if p.strong else escape(p.text) for p in label.statement)
    rows = "".join(f"<tr><td>{escape(n)}</td><td>{escape(v)}</td></tr>" for n, v in label.panel)
    lines = "".join(f"<p>{escape(text)}</p>" for text in label.words)
    return (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><title>{escape(label.name)}</title><style>'
        f"@page {{ size: {width:g}mm {height:g}mm; margin: 3mm }} body {{ font: 6.2pt/1.25 'DejaVu Sans', sans-serif; color: #000 }}"
        "h1 { font-size: 10pt; margin: 0 } p { margin: 1mm 0 } table { border-collapse: collapse; width: 100%; border: .6pt solid #000 }"
        "td { border-top: .3pt solid #000; padding: .3mm 1mm } td:last-child { text-align: right; white-space: nowrap }</style></head><body>"
        f"<h1>{escape(label.name)}</h1><p>Ingredients: {statement}</p>{f'<p><b>{escape(label.contains)}</b></p>' if label.contains else ''}"
        f"{lines}<table>{rows}</table></body></html>"
    )


def bag_html(bags: PremixBags, size: tuple[float, float]) -> str:
    """Return the labels of all bags, one a page, width and height in millimetres."""
    width, height = size
    heading, *lines = bags.words
    text = "".join(f"<p>{escape(str(line))}</p>" for line in lines)
    page = f"<section><h1>{escape(str(heading))}</h1>{text}</section>"
    return (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><title>{escape(bags.name)}</title><style>'
        f"@page {{ size: {width:g}mm {height:g}mm; margin: 4mm }} body {{ font: 7.4pt/1.3 'DejaVu Sans', sans-serif; color: #000 }}"
        "h1 { font-size: 10.5pt; margin: 0 } p { margin: 1mm 0 } section { break-after: page } section:last-child { break-after: auto }"
        f"</style></head><body>{page * bags.bags}</body></html>"
    )


def as_pdf(html: str) -> bytes:
    """Set a page. Nothing outside of it is fetched.

    Args:
        html: of this module.

    Returns:
        The PDF's bytes.
    """
    import weasyprint
    from PIL import ImageFile

    # Importing it lets every picture of the process end too soon: a photo that was cut off would be read as if it were whole.
    ImageFile.LOAD_TRUNCATED_IMAGES = False
    result: bytes = weasyprint.HTML(string=html, url_fetcher=_nothing).write_pdf()
    return result


def _nothing(url: str, *_: object, **__: object) -> dict[str, object]:
    raise ValueError(f"external files are not loaded: {url[:40]}")


__all__ = ["PAPERS", "Paper", "as_pdf", "bag_html", "ingredient_text", "label_html", "recipe_html"]


def _incomplete(recipe: Recipe) -> str:
    return f"<p><b>{escape(str(recipe.incomplete))}</b></p>" if recipe.incomplete else ""
