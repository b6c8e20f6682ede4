from concurrent.futures import ThreadPoolExecutor
from datetime import date, timedelta

import pytest
from django.db import IntegrityError, connection
from django.utils import timezone

from kitchen.accounts.tries import FREE_PER_CLIENT, Tries
from kitchen.errors import Conflict, KitchenError
from kitchen.models import AuditRow, Draft, FormulaVersion, Oven, SignInTries, StockMove
from kitchen.services import formulas, ovens, packs, stock
from kitchen.services.access import membership
from tests.conftest import sample


@pytest.mark.django_db(transaction=True)
def test_of_many_who_save_over_the_same_draft_one_wins_and_the_others_are_told(people, kitchen):
    made = formulas.create_formula(membership(people["baker"], kitchen.pk), sample())

    def save(pieces):
        try:
            formulas.save_draft(membership(people["baker"], kitchen.pk), made.formula.pk, sample(pieces=pieces), 1)
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
    made = formulas.create_formula(membership(people["baker"], kitchen.pk), sample())

    def keep(_):
        try:
            formulas.save_version(membership(people["baker"], kitchen.pk), made.formula.pk, 1)
        except Conflict:
            return False
        finally:
            connection.close()
        return True

    with ThreadPoolExecutor(2) as pool:
        assert sorted(pool.map(keep, range(2))) == [False, True]
    assert FormulaVersion.objects.count() == 1
    assert AuditRow.objects.filter(action="version.save").count() == 1


@pytest.mark.django_db(transaction=True)
def test_of_two_who_finish_one_bake_only_one_takes_its_flour(people, kitchen):
    made = formulas.create_formula(membership(people["baker"], kitchen.pk), sample(almond_flour=100, egg=50))
    pack = {"ingredient": "almond-flour", "name": "Mill"}
    lot = packs.create_lot(membership(people["baker"], kitchen.pk), pack, 1000).lot
    bake = stock.plan_bake(membership(people["baker"], kitchen.pk), made.formula.pk, 2, date(2027, 3, 1))

    def finish(_):
        try:
            stock.finish_bake(membership(people["baker"], kitchen.pk), bake.pk)
        except KitchenError:
            return False
        finally:
            connection.close()
        return True

    with ThreadPoolExecutor(3) as pool:
        assert sorted(pool.map(finish, range(3))) == [False, False, True]
    lot.refresh_from_db()
    assert sum(move.grams for move in StockMove.objects.filter(lot=lot)) == pytest.approx(1000 - 200)


@pytest.mark.django_db(transaction=True)
def test_two_ovens_named_alike_at_once_get_keys_of_their_own_or_a_clear_no(people, kitchen):
    def add(_):
        try:
            return ovens.add_oven(membership(people["baker"], kitchen.pk), "Deck").key
        except IntegrityError:
            return None
        finally:
            connection.close()

    with ThreadPoolExecutor(2) as pool:
        keys = [key for key in pool.map(add, range(2)) if key]
    assert len(set(keys)) == len(keys) == Oven.objects.count() > 0


def at_once(*acts):
    """Everything in threads of its own, with the answers in order."""

    def alone(act):
        try:
            return act()
        finally:
            connection.close()

    with ThreadPoolExecutor(len(acts)) as pool:
        return list(pool.map(alone, acts))


@pytest.mark.django_db(transaction=True)
def test_many_who_sign_in_at_once_from_one_place_are_all_heard_and_guesses_at_once_are_not(people):
    """An office in the morning, and somebody who guesses in parallel."""
    heard = at_once(*[lambda n=n: Tries(f"{n % 3}@kitchen.test", "198.51.100.1").wait_s() for n in range(12)])
    assert heard == [0.0] * 12
    for _ in range(FREE_PER_CLIENT):
        Tries("a@kitchen.test", "203.0.113.9").wrong()
    SignInTries.objects.update(last_at=timezone.now() - timedelta(seconds=30))
    heard = at_once(*[lambda: Tries("a@kitchen.test", "203.0.113.9").wait_s() for _ in range(8)])
    assert sum(wait == 0 for wait in heard) == 1

    def in_and_again(_):
        tries = Tries("b@kitchen.test", "198.51.100.2")
        for _ in range(12):
            assert tries.wait_s() == 0
            tries.right()
        return True

    assert at_once(*[lambda n=n: in_and_again(n) for n in range(6)]) == [True] * 6
