"""Packs, stock and imports of a kitchen: kept, found, changed, taken away."""

from datetime import date

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext

from kitchen.errors import Conflict, Forbidden, NotFound, Refused
from kitchen.models import Lot, PlannedBake, StockMove
from kitchen.services import formulas, imports, kitchens, packs, pantry, stock
from kitchen.services.access import membership
from kitchen.services.jobs import run_job
from kitchen.services.judging import core_settings, judge, library_of
from kitchen.services.pantry import PantryQuery
from substrata.base.errors import LabelError, SubstrataError
from tests.conftest import sample

ON = date(2027, 3, 1)
LABEL = {
    "style": "us",
    "per_g": 28,
    "figures": {"fat_g": "14", "carbohydrate_g": "6", "fibre_g": "3", "protein_g": "6"},
}


def pack(name="Mill almond flour", ingredient="almond-flour", **more):
    return {"name": name, "ingredient": ingredient} | more


@pytest.fixture
def baker(people):
    return people["baker"]


@pytest.fixture
def flour(baker, kitchen):
    return packs.create_lot(
        membership(baker, kitchen.pk), pack(label=LABEL, price=10, pack_g=1000, use_by="2027-06-01"), 500
    ).lot


def using(lot, **lines):
    document = sample(**lines) if lines else sample()
    for line in document["lines"]:
        if line["ingredient"] == lot.ingredient:
            line["lot"] = lot.key
    return document


def test_a_pack_is_kept_with_what_it_takes_to_find_it(flour):
    assert (flour.role, flour.flags, flour.trouble, flour.on_hand_g) == ("base", ["nut:almond"], "", 500)
    assert StockMove.objects.get(lot=flour).kind == "received"


def test_a_faulty_label_is_kept_and_marked(baker, kitchen):
    wrong = {
        "style": "us",
        "per_g": 100,
        "figures": {"carbohydrate_g": "6", "fibre_g": "10", "fat_g": "53", "protein_g": "22"},
    }
    opened = packs.create_lot(membership(baker, kitchen.pk), pack(label=wrong))
    assert opened.lot.trouble == "wrong"
    assert opened.reading.check.mistake.code == "eu-read-as-us"


def test_a_pack_that_cannot_be_read_changes_nothing(baker, kitchen, flour):
    with pytest.raises(SubstrataError):
        packs.create_lot(membership(baker, kitchen.pk), pack(ingredient="moon-dust"))
    with pytest.raises(LabelError):
        packs.save_lot(membership(baker, kitchen.pk), flour.pk, pack(price=-3), flour.lock)
    assert Lot.objects.get() == flour
    assert Lot.objects.get().document == flour.document


def test_two_people_do_not_overwrite_each_other(people, kitchen, flour):
    packs.save_lot(membership(people["owner"], kitchen.pk), flour.pk, pack("Renamed"), flour.lock)
    with pytest.raises(Conflict) as clash:
        packs.save_lot(membership(people["baker"], kitchen.pk), flour.pk, pack("Other"), flour.lock)
    assert clash.value.current["document"]["name"] == "Renamed"


def test_a_changed_pack_changes_what_formulas_show_and_their_cards_are_made_anew(baker, kitchen, flour):
    document = using(flour)
    formula = formulas.create_formula(membership(baker, kitchen.pk), document).formula
    before = judge(library_of(kitchen, document), core_settings(kitchen), document)
    assert list(packs.uses(flour)) == [formula]
    packs.save_lot(
        membership(baker, kitchen.pk), flour.pk, pack(label=LABEL | {"figures": {"protein_g": "8"}}), flour.lock
    )
    kitchen.refresh_from_db()
    formula.refresh_from_db()
    after = judge(library_of(kitchen, document), core_settings(kitchen), document)
    assert after.nutrition.piece.protein.value > before.nutrition.piece.protein.value
    assert formula.thumb_mark == ""


def test_a_pack_of_another_kitchen_is_not_found_by_its_key(people, flour):
    elsewhere = people["outsider"].memberships.get().kitchen
    document = using(flour)
    judged = judge(library_of(elsewhere, document), core_settings(elsewhere), document)
    assert judged.lines[0].pack == ""
    assert "pack-unknown" in [w.code for w in judged.warnings]
    with pytest.raises(SubstrataError):
        pantry.side_by_side(membership(people["outsider"], elsewhere.pk), [flour.key])


@pytest.mark.parametrize(("who", "refusal"), [("viewer", Forbidden), ("outsider", NotFound)])
def test_only_bakers_change_the_pantry(people, kitchen, flour, made_formula, who, refusal):
    user = people[who]
    for act in (
        lambda: packs.create_lot(membership(user, kitchen.pk), pack()),
        lambda: packs.save_lot(membership(user, kitchen.pk), flour.pk, pack(), flour.lock),
        lambda: packs.archive_lot(membership(user, kitchen.pk), flour.pk, archived=True),
        lambda: stock.change_stock(membership(user, kitchen.pk), flour.pk, "counted", 5),
        lambda: stock.plan_bake(membership(user, kitchen.pk), made_formula.pk, 1, ON),
        lambda: imports.start_import(membership(user, kitchen.pk), "x", "name\nSea salt"),
        lambda: kitchens.set_eaters(membership(user, kitchen.pk), []),
    ):
        with pytest.raises(refusal):
            act()


@pytest.fixture
def made_formula(baker, kitchen, flour):
    return formulas.create_formula(membership(baker, kitchen.pk), using(flour)).formula


def found(user, kitchen, **wanted):
    return [
        lot.name for lot, _ in pantry.find(membership(user, kitchen.pk), PantryQuery(**{"own": True} | wanted)).packs
    ]


def test_packs_are_found_by_letters_role_and_what_they_do_not_hold(baker, kitchen, flour):
    packs.create_lot(membership(baker, kitchen.pk), pack("Lane eggs", "egg"))
    packs.create_lot(membership(baker, kitchen.pk), pack("Lane butter", "butter", contains=["sesame"]))
    assert set(found(baker, kitchen, search="lan")) == {"Lane eggs", "Lane butter"}
    assert found(baker, kitchen, role="egg") == ["Lane eggs"]
    assert set(found(baker, kitchen, without="nut:")) == {"Lane eggs", "Lane butter"}
    assert "Lane butter" not in found(baker, kitchen, without="sesame")
    assert found(baker, kitchen, ingredient="egg") == ["Lane eggs"]
    packs.archive_lot(membership(baker, kitchen.pk), flour.pk, archived=True)
    assert found(baker, kitchen, archived=True) == [flour.name]


def test_packs_come_before_the_reference_and_pages_run_through_both(baker, kitchen, flour):
    first = pantry.find(membership(baker, kitchen.pk), PantryQuery(search="almond"), limit=3)
    rest = pantry.find(membership(baker, kitchen.pk), PantryQuery(search="almond"), offset=3, limit=100)
    assert [lot.pk for lot, _ in first.packs] == [flour.pk]
    assert len(first.references) == 2
    assert len(rest.packs) == 0
    assert len(first.references) + len(rest.references) == first.reference_count
    assert "almond-milk" in [seen.key for seen in rest.references]


def queries(act):
    with CaptureQueriesContext(
        connection,
    ) as seen:
        act()
    return len(seen)


def test_a_longer_pantry_asks_the_database_no_more_often(baker, kitchen, flour):
    listing = lambda: pantry.find(membership(baker, kitchen.pk), PantryQuery(search="a"))  # noqa: E731
    shelf = lambda: stock.shelf(membership(baker, kitchen.pk)).lots  # noqa: E731
    few = queries(listing), queries(shelf)
    for number in range(12):
        packs.create_lot(membership(baker, kitchen.pk), pack(f"Pack a{number}"), 10)
    assert (queries(listing), queries(shelf)) == few


def test_an_index_answers_a_search_for_letters(flour):
    """A handful of rows is read faster than any index, so PostgreSQL is asked what it would do with many."""
    with connection.cursor() as cursor:
        cursor.execute("set local enable_seqscan = off")
    assert "lot_name_letters" in Lot.objects.filter(name__icontains="almond").explain()


def test_a_planned_bake_speaks_for_its_grams_and_a_finished_one_takes_them(baker, kitchen, flour, made_formula):
    bake = stock.plan_bake(membership(baker, kitchen.pk), made_formula.pk, 2, ON)
    assert stock.reserved_of([flour]) == {flour.pk: 300}
    assert {s["ingredient"] for s in bake.shortages} == {"psyllium-powder", "egg", "salt"}
    stock.finish_bake(membership(baker, kitchen.pk), bake.pk)
    flour.refresh_from_db()
    assert flour.on_hand_g == 200
    assert stock.reserved_of([flour]) == {}
    assert StockMove.objects.filter(kind="used").get().grams == -300


def test_two_bakes_do_not_speak_for_the_same_grams(baker, kitchen, flour, made_formula):
    stock.plan_bake(membership(baker, kitchen.pk), made_formula.pk, 3, ON)
    second = stock.plan_bake(membership(baker, kitchen.pk), made_formula.pk, 1, ON)
    missing = {s["ingredient"]: s["grams"] for s in second.shortages}
    assert missing["almond-flour"] == pytest.approx(100)


def test_a_cancelled_bake_frees_its_packs_and_is_over(baker, kitchen, flour, made_formula):
    bake = stock.plan_bake(membership(baker, kitchen.pk), made_formula.pk, 1, ON)
    stock.cancel_bake(membership(baker, kitchen.pk), bake.pk)
    assert stock.reserved_of([flour]) == {}
    with pytest.raises(Refused):
        stock.finish_bake(membership(baker, kitchen.pk), bake.pk)
    assert list(stock.bakes(membership(baker, kitchen.pk), planned=False)) == [bake]
    assert PlannedBake.objects.get().state == "cancelled"


@pytest.mark.parametrize(
    ("kind", "grams"), [("counted", -1), ("received", 0), ("counted", float("nan")), ("stolen", 5), ("received", 1e9)]
)
def test_stock_that_cannot_be_is_refused(baker, kitchen, flour, kind, grams):
    with pytest.raises(Refused):
        stock.change_stock(membership(baker, kitchen.pk), flour.pk, kind, grams)
    flour.refresh_from_db()
    assert flour.on_hand_g == 500


@pytest.mark.parametrize("batches", [0, -1, float("inf"), 1e6])
def test_batches_that_cannot_be_are_refused(baker, kitchen, made_formula, batches):
    with pytest.raises(Refused):
        stock.plan_bake(membership(baker, kitchen.pk), made_formula.pk, batches, ON)


def test_eaters_are_kept_whole_or_not_at_all(baker, kitchen):
    kept = kitchens.set_eaters(
        membership(baker, kitchen.pk), [{"name": "Ada", "budgets": {"net_carbs": 20, "cheese": None}}]
    )
    assert [e.budgets for e in kept] == [{"net_carbs": 20.0}]
    for bad in (
        {"name": "", "budgets": {}},
        {"name": "B", "budgets": {"gold": 1}},
        {"name": "B", "budgets": {"cheese": -1}},
    ):
        with pytest.raises(Refused):
            kitchens.set_eaters(membership(baker, kitchen.pk), [bad])
    assert [e.name for e in kitchen.eaters.all()] == ["Ada"]


CSV = "name,serving size,calories,total fat (g),total carbohydrate (g),dietary fiber (g),protein (g)\n"
GOOD = "Mill blanched almond flour {},28 g,160,14,6,3,6\n"
BAD = "Mystery tonic,28 g,1,2,3,4,5\n"


def worked(job):
    """The job after a worker has had it."""
    run_job(job.pk)
    job.refresh_from_db()
    return job


def checked(baker, kitchen, text):
    found = imports.start_import(membership(baker, kitchen.pk), "packs.csv", text)
    assert worked(imports.start_check(membership(baker, kitchen.pk), found.pk)).state == "done"
    found.refresh_from_db()
    return found


def test_an_import_puts_nothing_in_until_it_is_told_and_then_all_at_once(baker, kitchen):
    revision = kitchen.revision
    found = checked(baker, kitchen, CSV + "".join(GOOD.format(n) for n in range(300)) + BAD)
    assert (found.state, found.total, found.good, [row["number"] for row in found.bad]) == ("checked", 301, 300, [302])
    assert Lot.objects.count() == 0
    job = worked(imports.start_save(membership(baker, kitchen.pk), found.pk))
    assert (job.state, job.result) == ("done", {"good": 300})
    found.refresh_from_db()
    kitchen.refresh_from_db()
    assert (found.state, found.text, Lot.objects.filter(kitchen=kitchen).count()) == ("saved", "", 300)
    assert kitchen.revision > revision


@pytest.mark.parametrize("earlier", [False, True])
def test_what_was_found_in_a_row_goes_into_the_pantry_with_it(baker, kitchen, monkeypatch, earlier):
    """Looked at once: the second pass takes it as found. An import that an earlier release has looked at is looked at again."""
    odd = "Mill almond flour odd,28 g,460,14,6,3,6\n"  # the calories do not add up
    found = checked(baker, kitchen, CSV + GOOD.format(1) + odd + BAD)
    assert (found.odd, found.troubles) == (1, {"3": "wrong", "4": "bad"})
    if earlier:
        imports.PackImport.objects.update(troubles={})
    else:
        monkeypatch.setattr("kitchen.services.packs.check_lot", None)
    worked(imports.start_save(membership(baker, kitchen.pk), found.pk))
    assert sorted(Lot.objects.values_list("name", "trouble")) == [
        ("Mill almond flour odd", "wrong"),
        ("Mill blanched almond flour 1", ""),
    ]


def test_a_failure_while_saving_leaves_nothing_half_saved_and_can_be_tried_again(baker, kitchen, monkeypatch):
    found = checked(baker, kitchen, CSV + GOOD.format(1) + GOOD.format(2))

    def broken(_):
        raise RuntimeError("the power went")

    monkeypatch.setattr(imports, "bump_revision", broken)
    job = imports.start_save(membership(baker, kitchen.pk), found.pk)
    with pytest.raises(RuntimeError):
        run_job(job.pk)
    job.refresh_from_db()
    assert (job.state, job.problem["what"], Lot.objects.count()) == ("failed", "something went wrong", 0)
    monkeypatch.undo()
    worked(imports.start_save(membership(baker, kitchen.pk), found.pk))
    assert Lot.objects.count() == 2


def test_an_import_that_was_given_up_is_over_and_its_job_saves_nothing(baker, kitchen):
    found = checked(baker, kitchen, CSV + GOOD.format(1))
    job = imports.start_save(membership(baker, kitchen.pk), found.pk)
    with pytest.raises(Refused, match="still running"):
        imports.start_save(membership(baker, kitchen.pk), found.pk)
    imports.stop_import(membership(baker, kitchen.pk), found.pk)
    assert worked(job).state == "stopped"
    with pytest.raises(Refused, match="already finished that step"):
        imports.start_save(membership(baker, kitchen.pk), found.pk)
    assert Lot.objects.count() == 0


def test_columns_can_be_matched_anew_and_nonsense_is_refused(baker, kitchen):
    found = imports.start_import(membership(baker, kitchen.pk), "x.csv", "what,stuff\nGouda,24\n")
    assert found.fields == ["", ""]
    imports.match_columns(
        membership(baker, kitchen.pk), found.pk, columns=["name", "protein_g"], style="eu", per_100=True
    )
    found.refresh_from_db()
    _, (row,) = imports.preview(found)
    assert row.lot.ingredient == "gouda"
    for columns, style in ((["name"], "eu"), (["name", "gold"], "eu"), (["name", ""], "uk")):
        with pytest.raises(Refused):
            imports.match_columns(membership(baker, kitchen.pk), found.pk, columns=columns, style=style, per_100=True)


def test_cheaper_packs_come_from_this_kitchen_only(people, kitchen, flour):
    cheap = packs.create_lot(membership(people["baker"], kitchen.pk), pack("Cheap flour", price=2, pack_g=1000)).lot
    (offer,) = pantry.cheaper(membership(people["baker"], kitchen.pk), using(flour))
    assert offer.lot == cheap.key
