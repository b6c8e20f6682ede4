"""Premix bags: what goes in, what is left to add, and until when. Nothing is lost between the bag and the bowl."""

from dataclasses import replace
from datetime import date

import pypdfium2
import pytest

from substrata.base.errors import FormulaError
from substrata.base.settings import Settings
from substrata.evaluation.dough import Dough
from substrata.publishing.premix import premix_bags
from substrata.publishing.printed_page import as_pdf, bag_html
from tests.inference.conftest import DEMO, LIBRARY
from tests.publishing.test_recipe import LOAF, ROLLS, WRAPS

MADE = date(2026, 12, 31)


def bags_of(which, *, bags=6, made_on=MADE, settings=Settings(), **change):  # noqa: B008 - frozen
    return premix_bags(
        Dough(replace(DEMO[which], **change), LIBRARY, settings).as_baked(), bags=bags, packed_on=made_on
    )


@pytest.mark.parametrize("which", sorted(DEMO))
def test_bag_and_additions_together_are_the_whole_dough(which):
    dough = Dough(DEMO[which], LIBRARY, Settings()).as_baked()
    bags = premix_bags(dough, bags=4, packed_on=MADE)
    inside = {part.line for part in bags.parts}
    assert bags.bag_g == pytest.approx(sum(part.grams for part in bags.parts), rel=1e-9)
    assert bags.whole_g == pytest.approx(4 * bags.bag_g, rel=1e-9)
    assert all(part.whole_g == pytest.approx(4 * part.grams) for part in bags.parts)
    outside = [w for w in dough.batch.lines if w.line.id not in inside and w.grams.value > 0.05 and w.role != "frying"]
    assert len(bags.add) == len(outside)
    # What holds water stays out of the bag: it would cake and spoil.
    assert all(w.ingredient.composition["water_g"] <= 15 for w in dough.batch.lines if w.line.id in inside)
    assert not {"egg", "milk"} & {name for name in bags.allergens if which == LOAF}


def test_the_label_says_what_to_add_how_to_bake_and_what_is_in_it():
    bags = bags_of(ROLLS)
    text = "\n".join(map(str, bags.words))
    assert "38–45 °C" in text
    assert "water (38–45 °C)" in text
    assert "Bake about" in text
    assert "almond" in text
    assert bags.to_add_allergens == ("sesame",)
    assert "Shake" in text
    wraps = bags_of(WRAPS)
    assert any("eggs" in added for added in wraps.add)
    assert any("(pulsed and squeezed)" in added for added in wraps.add)


def test_the_date_goes_by_what_spoils_first():
    # Common practice: ground nuts keep two months; the last day of a shorter month stands for one that is not there.
    almond = bags_of(ROLLS)
    assert (almond.use_by, almond.why_use_by) == (date(2027, 2, 28), "almond flour: ground nuts and seeds turn rancid")
    lean = tuple(
        line
        for line in DEMO[ROLLS].lines
        if line.ingredient not in {"almond-flour", "sesame-seeds", "coconut-flour", "flax-meal"}
    )
    later = bags_of(ROLLS, lines=lean)
    assert later.use_by > almond.use_by, later.why_use_by


@pytest.mark.parametrize("bags", [0, -3, 501])
def test_so_many_bags_are_refused(bags):
    with pytest.raises(FormulaError) as error:
        bags_of(ROLLS, bags=bags)
    assert error.value.field == "bags"


def test_a_dough_without_dry_things_has_no_premix():
    wet = tuple(line for line in DEMO[LOAF].lines if line.ingredient in {"egg", "butter"})
    with pytest.raises(FormulaError, match="premix"):
        bags_of(LOAF, lines=wet)


def test_each_bag_has_a_page_and_a_name_is_never_markup():
    bags = bags_of(ROLLS, bags=3, name="Rolls <b>& more</b>")
    document = pypdfium2.PdfDocument(as_pdf(bag_html(bags, (90, 60))))
    assert len(document) == 3
    text = document[0].get_textpage().get_text_range()
    assert "Rolls <b>& more</b>" in text
    assert "Use by 28 Feb 2027" in text
