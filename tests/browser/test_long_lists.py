"""Lists of thousands: everything is reached by scrolling, and only what is in sight is in the page."""

import copy
import re

import pytest
from django.db.models import F
from playwright.sync_api import expect

from kitchen.models import Formula, Lot, Run

pytestmark = pytest.mark.browser
MANY = 400
MOST_IN_PAGE = 140  # a short list stands there whole, and a page more may have come in


def many(model, number, **changes):
    """Copies of a row of the demo, named so that the order of the list is known."""
    first = model.objects.first()
    rows = []
    for n in range(number):
        row = copy.copy(first)
        row.pk, row._state = None, copy.copy(row._state)
        row._state.adding = True
        row.name = f"Row {n:04d}"
        for name, value in changes.items():
            setattr(row, name, value(row, n))
        rows.append(row)
    model.objects.bulk_create(rows)


LISTS = {
    "/": ("[role=listitem]", ".shelf"),
    "/pantry?own=true": ("tbody tr", ".page-sheet"),
    "/pantry/stock": ("tbody tr", "section[aria-label='On hand']"),
    "/trials": ("tbody tr", ".page"),
}

# The rows that stand in the page once it has drawn what the last turn of the wheel asked for.
ROWS_IN_PAGE = """async (rows) => {
    for (let frame = 0; frame < 3; frame += 1) await new Promise(requestAnimationFrame);
    const names = [...document.querySelectorAll(rows)].map((row) => row.textContent.match(/Row \\d{4}/)?.[0]);
    return names.filter(Boolean);
}"""


@pytest.mark.parametrize("path", LISTS)
def test_a_long_list_is_scrolled_to_its_end_and_only_what_is_in_sight_is_there(shelf, path):
    many(Formula, MANY)
    many(
        Lot,
        MANY,
        key=lambda _, n: f"long-{n}",
        document=lambda row, _: {**row.document, "name": row.name},
        on_hand_g=lambda _, n: 100.0 + n,
    )
    many(Run, MANY, key=lambda _, n: f"long-{n}")
    Formula.objects.update(touched_at=F("created_at"))
    rows, box = LISTS[path]
    shelf.goto(re.sub(r"(https?://[^/]+)/.*", rf"\1{path}", shelf.url))
    listed = shelf.locator(f"{box} {rows}").filter(has_text="Row ")
    expect(listed.first).to_be_visible()
    shelf.locator(box).first.hover()
    seen = set()
    for _ in range(400):
        names = shelf.evaluate(ROWS_IN_PAGE, f"{box} {rows}")
        assert len(names) <= MOST_IN_PAGE
        seen.update(names)
        if len(seen) == MANY:
            break
        shelf.mouse.wheel(0, 400)
    assert len(seen) == MANY
