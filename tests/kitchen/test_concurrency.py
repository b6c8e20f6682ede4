from concurrent.futures import ThreadPoolExecutor

import pytest
from django.db import connection

from kitchen.errors import Conflict
from kitchen.models import AuditRow, Draft, FormulaVersion
from kitchen.services import formulas
from tests.conftest import sample


@pytest.mark.django_db(transaction=True)
def test_of_many_who_save_over_the_same_draft_one_wins_and_the_others_are_told(people, kitchen):
    made = formulas.create_formula(people["baker"], kitchen.pk, sample())

    def save(pieces):
        try:
            formulas.save_draft(people["baker"], kitchen.pk, made.formula.pk, sample(pieces=pieces), 1)
        except Conflict as clash:
            return clash.current["document"]["form"]["pieces"]
        finally:
            connection.close()
        return None

    with ThreadPoolExecutor(6) as pool:
        told = list(pool.map(save, range(10, 16)))
    kept = Draft.objects.get().document["form"]["pieces"]
    assert told.count(None) == 1
    assert set(told) == {None, kept}
    assert Draft.objects.get().lock == 2


@pytest.mark.django_db(transaction=True)
def test_two_who_keep_a_version_at_once_make_one(people, kitchen):
    made = formulas.create_formula(people["baker"], kitchen.pk, sample())

    def keep(_):
        try:
            formulas.save_version(people["baker"], kitchen.pk, made.formula.pk, 1)
        except Conflict:
            return False
        finally:
            connection.close()
        return True

    with ThreadPoolExecutor(2) as pool:
        assert sorted(pool.map(keep, range(2))) == [False, True]
    assert FormulaVersion.objects.count() == 1
    assert AuditRow.objects.filter(action="version.save").count() == 1
