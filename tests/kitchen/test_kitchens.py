import pytest

from kitchen.demo.load import BAKER, DEMO_NAME, demo_formulas, load_demo, remove_demo
from kitchen.errors import Conflict, Forbidden, Refused
from kitchen.models import Formula, Kitchen, Membership
from kitchen.services import formulas, kitchens
from kitchen.services.access import RIGHTS, may, membership
from kitchen.services.closing import close_account, close_kitchen, keep_for_those_who_stay
from kitchen.services.judging import core_settings, judge, library_of, shelf_thumb
from kitchen.services.kitchens import change_role, open_kitchen, remove_member
from kitchen.services.pans import set_pans
from kitchen.tasks import refresh_shelf
from tests.conftest import sample

pytestmark = pytest.mark.django_db


def test_a_role_that_is_not_there_is_refused(people, kitchen):
    with pytest.raises(Refused) as refusal:
        kitchens.change_role(membership(people["owner"], kitchen.pk), people["baker"].pk, "king")
    assert refusal.value.field == "role"


@pytest.mark.parametrize(
    ("field", "value"), [("spoons", "imperial"), ("convention", ""), ("name", "  "), ("name", "x" * 81)]
)
def test_a_setting_outside_its_choices_is_refused(people, kitchen, field, value):
    with pytest.raises(Refused) as refusal:
        kitchens.change_settings(membership(people["baker"], kitchen.pk), {field: value})
    assert refusal.value.field == field


def test_a_changed_convention_makes_the_shelf_thumbs_anew(people, kitchen):
    made = formulas.create_formula(membership(people["baker"], kitchen.pk), sample())
    before = made.formula.thumb["net_carbs"]
    kitchens.change_settings(membership(people["baker"], kitchen.pk), {"convention": "total"})
    assert refresh_shelf() == 1
    card = Formula.objects.get().thumb
    assert card["net_carbs"] > before
    assert card["convention"] == "total"
    assert refresh_shelf() == 0


def test_the_demo_tells_stories_and_its_last_versions_are_sound():
    """Every kept last version lies inside all its brackets by our own model, over many forms."""
    kitchen = load_demo()
    shelf = Formula.objects.filter(kitchen=kitchen, name__in=[entry["name"] for entry in demo_formulas()])
    assert shelf.count() == len(demo_formulas()) >= 8
    assert len({f.form for f in shelf}) >= 7
    for formula in shelf:
        versions = list(formula.versions.all())
        assert 2 <= len(versions) <= 3
        assert all(v.note for v in versions)
        assert all(v.changes for v in versions[:-1])
        document = versions[0].document
        judged = judge(library_of(kitchen, document), core_settings(kitchen), document)
        assert not judged.problems
        assert [b.key for b in judged.brackets if b.state in ("low", "high")] == [], formula.name
        assert not [w.code for w in judged.warnings if w.severity == "act"], formula.name


def test_the_demo_has_a_dough_in_two_sorts_with_a_part():
    kitchen = load_demo()
    document = Formula.objects.get(kitchen=kitchen, name="Crust in two halves").draft.document
    judged = judge(library_of(kitchen, document), core_settings(kitchen), document)
    assert not judged.problems
    assert not judged.sorts_problem
    plain, laden = judged.sorts
    assert (plain.name, laden.name) == ("plain", "laden")
    assert laden.separate_g > 2 * plain.separate_g
    assert any(line.name == "Pepper and tomato sauce" for line in judged.lines)
    assert [b.key for b in judged.brackets if b.state in ("low", "high")] == []
    assert not [w.code for w in judged.warnings if w.severity == "act"]


def test_a_shelf_thumb_shows_what_the_bench_shows():
    """Both are rounded once, by the page."""
    kitchen = load_demo()
    for formula in Formula.objects.filter(kitchen=kitchen):
        document = formula.versions.first().document
        piece = judge(library_of(kitchen, document), core_settings(kitchen), document).nutrition.piece
        card = shelf_thumb(kitchen, document)
        assert (card["net_carbs"], card["protein"]) == (piece.net_carbs.value, piece.protein.value)


def test_the_demo_can_be_put_back_without_touching_other_kitchens(people):
    load_demo()
    remove_demo()
    assert not Kitchen.objects.filter(name=DEMO_NAME).exists()
    assert not Membership.objects.filter(user__email=BAKER).exists()
    assert people["owner"].memberships.exists()
    load_demo()
    assert Kitchen.objects.filter(name=DEMO_NAME).count() == 1


def test_eaters_and_pans_that_somebody_else_changed_are_not_overwritten(people, kitchen):
    ada, bo = ({"name": name, "budgets": {"net_carbs": 20.0}} for name in ("Ada", "Bo"))
    kitchens.set_eaters(membership(people["baker"], kitchen.pk), [ada], base=[])
    with pytest.raises(Conflict) as conflict:
        kitchens.set_eaters(membership(people["owner"], kitchen.pk), [bo], base=[])
    assert conflict.value.current == {"eaters": [ada]}
    kitchens.set_eaters(membership(people["owner"], kitchen.pk), [ada, bo], base=[ada])
    tray = {"name": "Tray", "kind": "tray", "length_mm": 400, "width_mm": 300, "height_mm": 20}
    kept = set_pans(membership(people["baker"], kitchen.pk), [tray], [])
    with pytest.raises(Conflict, match="pans"):
        set_pans(membership(people["owner"], kitchen.pk), [], [])
    assert set_pans(membership(people["owner"], kitchen.pk), [], [pan["id"] for pan in kept]) == []


def test_an_owner_whose_account_is_closing_is_no_owner_who_stays(people, kitchen):
    other = Membership.objects.get(kitchen=kitchen, user=people["baker"])
    other.role = Membership.Role.OWNER
    other.save()
    close_account(people["owner"], on=True)
    with pytest.raises(Refused, match="needs an owner"):
        remove_member(membership(people["baker"], kitchen.pk), people["baker"].pk)
    with pytest.raises(Refused, match="needs an owner"):
        change_role(membership(people["baker"], kitchen.pk), people["baker"].pk, "baker")
    close_account(people["owner"], on=False)
    remove_member(membership(people["baker"], kitchen.pk), people["baker"].pk)


def test_a_kitchen_that_was_to_end_with_an_account_stays_once_it_is_kept_or_has_another_owner(people):
    alone = open_kitchen(people["outsider"], "Alone").kitchen
    announced = open_kitchen(people["outsider"], "Announced").kitchen
    close_kitchen(membership(people["outsider"], announced.pk), on=True, name="Announced")
    close_account(people["outsider"], on=True)
    # Somebody comes in meanwhile: the kitchen is no longer hers alone, and it was hers to end.
    Membership.objects.create(kitchen=alone, user=people["viewer"], role=Membership.Role.VIEWER)
    close_account(people["outsider"], on=False)
    alone.refresh_from_db()
    announced.refresh_from_db()
    assert alone.erased_at is None
    assert announced.erased_at is not None, "its end was announced by itself"
    Membership.objects.filter(kitchen=alone, user=people["viewer"]).delete()
    close_account(people["outsider"], on=True)
    Membership.objects.create(kitchen=alone, user=people["baker"], role=Membership.Role.OWNER)
    keep_for_those_who_stay(Kitchen.objects.get(pk=alone.pk))
    alone.refresh_from_db()
    assert alone.erased_at is None


def test_a_right_is_told_and_held_by_one_table(people, kitchen):
    """What the page hides by ``rights`` is what the services refuse: a baker edits the stock and asks nobody in, a viewer looks."""
    rows = {row.user.username: row for row in kitchen.memberships.select_related("user")}
    assert may(rows["owner"], "members.edit")
    assert not may(rows["baker"], "members.edit")
    assert may(rows["baker"], "stock.edit")
    assert RIGHTS[Membership.Role.VIEWER] == {"view"}
    with pytest.raises(Forbidden) as refusal:
        membership(people["viewer"], kitchen.pk, "stock.edit")
    assert refusal.value.allowed == "baker or owner"
    with pytest.raises(Forbidden) as refusal:
        membership(people["baker"], kitchen.pk, "members.edit")
    assert refusal.value.allowed == "owner"
