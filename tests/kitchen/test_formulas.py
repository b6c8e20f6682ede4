import pytest
from django.contrib.auth.models import User

from kitchen.errors import Conflict, Forbidden, KitchenError, NotFound, Refused
from kitchen.models import AuditRow, Draft, Formula, FormulaVersion
from kitchen.services import formulas
from kitchen.services.access import membership
from substrata.base.errors import FormulaError
from tests.conftest import sample

pytestmark = pytest.mark.django_db


@pytest.fixture
def made(people, kitchen):
    return formulas.create_formula(membership(people["baker"], kitchen.pk), sample())


def changed(opened, **form):
    return {**opened.draft.document, "form": {**opened.draft.document["form"], **form}}


def test_a_new_formula_is_a_draft_with_a_card_and_an_audit_row(made, people):
    assert made.draft.lock == 1
    assert [s["role"] for s in made.formula.thumb["strata"]] == ["base", "binder", "egg", "liquid", "salt"]
    assert AuditRow.objects.get(action="formula.create").user == people["baker"]


def test_a_draft_saves_under_its_lock_and_a_stale_lock_is_refused_with_their_draft(made, people, kitchen):
    first = formulas.save_draft(
        membership(people["baker"], kitchen.pk), made.formula.pk, changed(made, pieces=8), made.draft.lock
    )
    assert first.draft.lock == 2
    with pytest.raises(Conflict) as clash:
        formulas.save_draft(membership(people["owner"], kitchen.pk), made.formula.pk, changed(made, pieces=9), 1)
    current = clash.value.current
    assert current["document"]["form"]["pieces"] == 8
    assert current["by"] == "baker@kitchen.test"
    assert current["differences"] == ["9 → 8 pieces"]
    assert Draft.objects.get().document["form"]["pieces"] == 8


def test_the_same_work_under_an_older_lock_overwrites_nothing_and_is_taken(made, people, kitchen):
    formulas.save_draft(membership(people["baker"], kitchen.pk), made.formula.pk, changed(made, pieces=8), 1)
    again = formulas.save_draft(membership(people["baker"], kitchen.pk), made.formula.pk, changed(made, pieces=8), 1)
    assert again.draft.document["form"]["pieces"] == 8


@pytest.mark.parametrize("what", ["order", "lock", "serving"])
def test_no_change_is_too_small_to_be_a_conflict(made, people, kitchen, what):
    theirs, mine = changed(made), changed(made)
    if what == "order":
        theirs["lines"] = theirs["lines"][::-1]
    elif what == "lock":
        theirs["lines"] = [{**theirs["lines"][0], "locked": True}, *theirs["lines"][1:]]
    else:
        theirs = changed(made, serving_pieces=2)
    formulas.save_draft(membership(people["owner"], kitchen.pk), made.formula.pk, theirs, 1)
    with pytest.raises(Conflict) as clash:
        formulas.save_draft(membership(people["baker"], kitchen.pk), made.formula.pk, mine, 1)
    assert clash.value.current["differences"]


def test_versions_are_numbered_say_what_changed_and_never_change(made, people, kitchen):
    one = formulas.save_version(membership(people["baker"], kitchen.pk), made.formula.pk, 1, "first")
    edited = formulas.save_draft(membership(people["baker"], kitchen.pk), made.formula.pk, changed(made, pieces=8), 2)
    two = formulas.save_version(membership(people["baker"], kitchen.pk), made.formula.pk, edited.draft.lock)
    assert (one.number, two.number) == (1, 2)
    assert two.changes == ["6 → 8 pieces"]
    assert FormulaVersion.objects.get(number=1).document["form"]["pieces"] == 6
    assert [c.text for c in formulas.compare(membership(people["viewer"], kitchen.pk), made.formula.pk, 1, 0)] == [
        "6 → 8 pieces"
    ]


def test_a_version_of_nothing_new_is_refused(made, people, kitchen):
    formulas.save_version(membership(people["baker"], kitchen.pk), made.formula.pk, 1)
    with pytest.raises(Refused, match="nothing has changed"):
        formulas.save_version(membership(people["baker"], kitchen.pk), made.formula.pk, 2)


def test_a_draft_put_back_to_its_version_is_no_longer_changed(made, people, kitchen):
    formulas.save_version(membership(people["baker"], kitchen.pk), made.formula.pk, 1)
    away = formulas.save_draft(membership(people["baker"], kitchen.pk), made.formula.pk, changed(made, pieces=8), 2)
    back = formulas.save_draft(membership(people["baker"], kitchen.pk), made.formula.pk, changed(made, pieces=6), 3)
    assert (away.draft.changed, back.draft.changed) == (True, False)


def test_a_fork_starts_anew_and_remembers_where_from(made, people, kitchen):
    fork = formulas.fork_formula(membership(people["baker"], kitchen.pk), made.formula.pk, "Rolls, nut-free")
    assert fork.formula.forked_from == made.formula
    assert fork.draft.document["provenance"]["forked_from"] == "Rolls"
    assert formulas.versions(membership(people["baker"], kitchen.pk), fork.formula.pk).count() == 0


def test_archiving_hides_and_restoring_brings_back(made, people, kitchen):
    formulas.archive_formula(membership(people["baker"], kitchen.pk), made.formula.pk, archived=True)
    assert formulas.shelf(membership(people["baker"], kitchen.pk)).count() == 0
    assert formulas.shelf(membership(people["baker"], kitchen.pk), archived=True).count() == 1
    formulas.archive_formula(membership(people["baker"], kitchen.pk), made.formula.pk, archived=False)
    assert formulas.shelf(membership(people["baker"], kitchen.pk)).count() == 1


def test_the_shelf_finds_by_words_of_the_name_and_by_form(made, people, kitchen):
    find = lambda **by: formulas.shelf(membership(people["viewer"], kitchen.pk), **by).count()  # noqa: E731
    assert [find(search=s) for s in ("rol", "LLS", "rolls nothing", "%", "")] == [1, 1, 0, 0, 1]
    assert [find(form=f) for f in ("bun", "wrap")] == [1, 0]


@pytest.mark.parametrize("action", ["create", "draft", "version", "fork", "archive"])
@pytest.mark.parametrize(("who", "error"), [("viewer", Forbidden), ("outsider", NotFound)])
def test_viewers_may_not_change_and_outsiders_see_nothing(made, people, kitchen, action, who, error):
    user, pk = people[who], made.formula.pk
    calls = {
        "create": lambda: formulas.create_formula(membership(user, kitchen.pk), sample()),
        "draft": lambda: formulas.save_draft(membership(user, kitchen.pk), pk, sample(), 1),
        "version": lambda: formulas.save_version(membership(user, kitchen.pk), pk, 1),
        "fork": lambda: formulas.fork_formula(membership(user, kitchen.pk), pk),
        "archive": lambda: formulas.archive_formula(membership(user, kitchen.pk), pk, archived=True),
    }
    before = Formula.objects.count(), FormulaVersion.objects.count(), AuditRow.objects.count()
    with pytest.raises(error):
        calls[action]()
    assert before == (Formula.objects.count(), FormulaVersion.objects.count(), AuditRow.objects.count())


def test_a_formula_of_another_kitchen_is_not_found_through_ones_own(made, people):
    own = people["outsider"].memberships.get().kitchen
    with pytest.raises(NotFound):
        formulas.open_formula(membership(people["outsider"], own.pk), made.formula.pk)


def test_a_document_that_cannot_be_read_changes_nothing(made, people, kitchen):
    with pytest.raises(FormulaError):
        formulas.save_draft(membership(people["baker"], kitchen.pk), made.formula.pk, changed(made, pieces=0), 1)
    assert Draft.objects.get().lock == 1


def test_a_user_without_membership_is_refused_everywhere(kitchen):
    with pytest.raises(KitchenError):
        formulas.shelf(membership(User.objects.create_user("new"), kitchen.pk))


def test_an_answer_that_got_lost_is_no_conflict_of_a_page_with_itself(people, kitchen):
    made = formulas.create_formula(membership(people["baker"], kitchen.pk), sample())

    def save(pieces, lock, page, who="baker"):
        return formulas.save_draft(
            membership(people[who], kitchen.pk), made.formula.pk, changed(made, pieces=pieces), lock, page
        ).draft

    save(7, 1, "my page")  # its answer never arrived, so the page still knows lock 1
    assert save(8, 1, "my page").lock == 3
    for page, who in (("other page", "baker"), ("my page", "owner"), ("", "baker")):
        with pytest.raises(Conflict):
            save(9, 1, page, who)
    save(10, 3, "other page")
    with pytest.raises(Conflict):
        save(11, 3, "my page")
