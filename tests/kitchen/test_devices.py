"""Whose scale and thermometers: chosen by hand, of one kitchen, and none in any other."""

import pytest

from kitchen.errors import Forbidden, Refused
from kitchen.services import devices
from kitchen.services.access import membership

pytestmark = pytest.mark.django_db


@pytest.fixture
def simulated(settings):
    settings.BENCH_SCALE = settings.BENCH_PROBE = "socket://127.0.0.1:1"
    settings.BENCH_SIMULATED = True
    devices._bridge.cache_clear()
    yield settings
    devices._bridge.cache_clear()


def test_nobody_has_devices_until_they_are_chosen(people, kitchen, simulated):
    told = devices.readings(membership(people["viewer"], kitchen.pk))
    assert (told.scale.present, told.simulated, told.core.celsius) == (False, False, None)
    with pytest.raises(Refused, match="no scale"):
        devices.say(membership(people["baker"], kitchen.pk), "pour", 100)
    devices.choose_devices(membership(people["baker"], kitchen.pk), "simulated")
    told = devices.readings(membership(people["viewer"], kitchen.pk))
    assert (told.scale.present, told.simulated) == (True, True)


def test_devices_stand_in_one_kitchen(people, kitchen, simulated):
    elsewhere = people["outsider"].memberships.get().kitchen
    devices.choose_devices(membership(people["baker"], kitchen.pk), "simulated")
    with pytest.raises(Refused, match="another kitchen"):
        devices.choose_devices(membership(people["outsider"], elsewhere.pk), "simulated")
    assert not devices.readings(membership(people["outsider"], elsewhere.pk)).scale.present
    devices.choose_devices(membership(people["baker"], kitchen.pk), "")
    devices.choose_devices(membership(people["outsider"], elsewhere.pk), "simulated")


def test_only_what_the_server_has_is_chosen_and_only_by_bakers(people, kitchen, simulated):
    with pytest.raises(Refused, match="no such devices"):
        devices.choose_devices(membership(people["baker"], kitchen.pk), "here")
    with pytest.raises(Forbidden):
        devices.choose_devices(membership(people["viewer"], kitchen.pk), "simulated")
    simulated.BENCH_SIMULATED = False
    devices.choose_devices(membership(people["baker"], kitchen.pk), "here")
    assert not devices.readings(membership(people["baker"], kitchen.pk)).simulated
