"""Every endpoint with what no baker types: NULs, halves of characters, numbers of four hundred digits. Refused, never an error of ours."""

import copy
import json
from pathlib import Path
from urllib.parse import urlencode

import pytest

from tests.api.conftest import Caller
from tests.api.test_access import BODIES, CONTRACT, OPERATIONS, _stocked, place

__all__ = ["_stocked"]
PATHS = json.loads(Path(CONTRACT).read_text(encoding="utf8"))["paths"]
STRANGE = ("\x00", "a\x00b", "\ud800", "\u202e" * 50, "9" * 5000, 10**400, -1, 1e308, [], {}, None, True)


def leaves(value, path=()):
    if isinstance(value, dict):
        for key, own in value.items():
            yield from leaves(own, (*path, key))
    elif isinstance(value, list) and value:
        yield from leaves(value[0], (*path, 0))
    else:
        yield path


def planted(body, path, strange):
    other = copy.deepcopy(body)
    at = other
    for key in path[:-1]:
        at = at[key]
    at[path[-1]] = strange
    return other


@pytest.mark.parametrize(("method", "path", "operation"), [o for o in OPERATIONS if o[2] in BODIES])
def test_no_body_is_an_error_of_ours(people, kitchen, made, method, path, operation):
    call, body, address = (
        Caller(people["baker"], raise_request_exception=False),
        BODIES[operation],
        place(path, kitchen, made),
    )
    spots = list(leaves(body))
    # Of a long document the first spots of each kind are enough: every strange thing everywhere would take an hour.
    for n, spot in enumerate(spots[:14]):
        for strange in STRANGE[n % 3 :: 3]:
            if spot:
                status = call(method, address, planted(body, spot, strange)).status_code
                assert status < 500, (operation, spot, repr(strange)[:20])


@pytest.mark.parametrize(("method", "path", "operation"), [o for o in OPERATIONS if o[0] == "GET"])
def test_no_query_is_an_error_of_ours(people, kitchen, made, method, path, operation):
    call = Caller(people["baker"], raise_request_exception=False)
    address = place(path, kitchen, made).partition("?")[0]
    asked = [p["name"] for p in PATHS[path]["get"].get("parameters", ()) if p["in"] == "query"]
    for name in asked:
        for strange in ("\x00", "a\x00", "9" * 400, "-1", "nan", "1e400", "\u202e", ""):
            status = call(method, f"{address}?{urlencode({name: strange})}").status_code
            assert status < 500, (operation, name, repr(strange)[:20])
