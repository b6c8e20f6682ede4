"""A field is declared once: reader, writer, schema, the API's model and the words for a difference follow."""

import copy
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Annotated, Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import read_document, write_document
from substrata.base.documents.field_kinds import Number, Text, Where
from substrata.base.documents.records import declared, described_differences, read_record, record_schema, write_record
from substrata.base.errors import FormulaError
from substrata.ingredients.labels.pack_document import read_lot, write_lot


@dataclass(frozen=True, kw_only=True)
class Kettle:
    """A made-up record."""

    litres: Annotated[float | None, Number(low=0.5, high=4, unit="L", label="kettle")] = None
    colour: Annotated[str, Text(most=8, formerly="paint")] = ""
    lid: Annotated[str, Text(group="top", key="cover")] = ""
    extra: Mapping[str, Any] = field(default_factory=dict)


FULL = {"litres": 1.5, "colour": "red", "top": {"cover": "glass", "knob": 1}, "spout": [2]}


def test_a_record_is_read_written_and_described_from_its_declaration():
    kettle = read_record(Kettle, FULL, Where())
    assert (kettle.litres, kettle.colour, kettle.lid) == (1.5, "red", "glass")
    assert write_record(kettle) == FULL
    assert record_schema(Kettle)["properties"]["litres"] == {"type": ["number", "null"], "minimum": 0.5, "maximum": 4}
    assert record_schema(Kettle)["properties"]["top"]["properties"]["cover"]["maxLength"] == 120
    other = read_record(Kettle, FULL | {"litres": None}, Where())
    assert list(described_differences(kettle, other)) == ["kettle 1.5 L → as usual"]


def test_an_older_key_is_still_read_and_written_under_its_new_name():
    assert write_record(read_record(Kettle, {"paint": "blue", "top": {}}, Where()))["colour"] == "blue"


def test_a_refusal_says_place_what_was_got_and_what_is_allowed():
    with pytest.raises(FormulaError) as refusal:
        read_record(Kettle, FULL | {"litres": 9}, Where(field="stove"))
    assert str(refusal.value) == "stove.litres cannot be read; got 9; allowed: 0.5 to 4 L; correct stove.litres"


WHOLE = {
    "name": "Rolls", "form": {"kind": "bun", "pieces": 4, "size": {"thickness_mm": 30}},
    "lines": [{"id": "a", "ingredient": "zucchini", "grams": 90, "prep": {"steps": [{"act": "squeeze"}]}}],
    "mix": {"cheese": "cold"}, "bake": {"oven_c": 180, "stages": [{"kind": "bake", "minutes": 9}]}, "targets": {"salt": {"low": 1}},
}  # fmt: skip
PACK = {"ingredient": "almond-flour", "name": "Mill", "label": {"style": "us", "per_g": 28, "figures": {"fat_g": "14"}}}


def objects_in(document, way=()):
    """The way to every object of a document that is no mapping of free names."""
    if isinstance(document, dict):
        if way[-1:] not in (("targets",), ("figures",), ("measures",)):
            yield way
        for key, value in document.items():
            yield from objects_in(value, (*way, key))
    elif isinstance(document, list):
        for n, value in enumerate(document):
            yield from objects_in(value, (*way, n))


def at(document, way):
    for step in way:
        document = document[step]
    return document


@pytest.mark.parametrize("way", list(objects_in(WHOLE)), ids=str)
def test_an_unknown_key_survives_in_every_object_of_a_formula(way):
    document = copy.deepcopy(WHOLE)
    at(document, way)["from another program"] = {"deep": [1, None]}
    written = write_document(read_document(write_document(read_document(document))))
    assert at(written, way)["from another program"] == {"deep": [1, None]}


@pytest.mark.parametrize("way", list(objects_in(PACK)), ids=str)
def test_an_unknown_key_survives_in_every_object_of_a_pack(way):
    document = copy.deepcopy(PACK)
    at(document, way)["from another program"] = "kept"
    assert at(write_lot(read_lot(document, "k")), way)["from another program"] == "kept"


@given(st.dictionaries(st.text(max_size=8), st.none() | st.integers() | st.text(max_size=5), max_size=5))
def test_any_unknown_keys_are_kept_whatever_they_are_called(more):
    known = {key for f in declared(Kettle) for key in f.keys} | {"top"}
    strange = {key: value for key, value in more.items() if key not in known}
    assert write_record(read_record(Kettle, FULL | strange, Where())) == FULL | strange
