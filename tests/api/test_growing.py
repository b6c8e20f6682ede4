"""A made-up form and a made-up field, added by data alone, are there from the document to the page's contract."""

from dataclasses import dataclass
from typing import Annotated

import pytest

from api.document_schemas import model_of
from substrata.base.documents.collection_kinds import Nested
from substrata.base.documents.field_kinds import Number, Where
from substrata.base.documents.records import described_differences, read_record, record_schema, write_record
from substrata.base.errors import FormulaError, LibraryError
from substrata.base.settings import Settings
from substrata.formula.bake_settings import BakeWish
from substrata.formula.exchange.formula_difference import differences
from substrata.formula.form_table import forms
from substrata.formula.formula import Formula
from substrata.formula.formula_document import document_schema, read_document
from substrata.ingredients.library import load_library
from tests.conftest import sample
from tests.support.growing import grown

pytestmark = pytest.mark.django_db
WAFFLE = {
    "forms.csv": ("form", "thin-crust", {"form": "waffle", "name": "Waffle", "thickness_mm": "12", "filled": "1"}),
    "shapes.csv": ("form", "thin-crust", {"form": "waffle", "lowest": "pourable", "highest": "spreadable"}),
    "baking.csv": ("form", "thin-crust", {"form": "waffle"}),
    "racc.csv": ("form", "bun", {"form": "waffle", "racc_g": "240"}),
}


def test_a_made_up_form_is_judged_shaped_baked_and_printed(tmp_path, monkeypatch, caller, kitchen):
    document = sample() | {"form": {"kind": "waffle", "pieces": 4}}
    call, root = caller("baker"), f"/api/kitchens/{kitchen.pk}"
    assert call("POST", f"{root}/analyse", document).status_code == 422
    with grown(tmp_path, monkeypatch, WAFFLE):
        assert "waffle" in document_schema()["properties"]["form"]["properties"]["kind"]["enum"]
        assert {"id": "waffle", "name": "Waffle", "note": ""} in call("GET", "/api/words").json()["forms"]
        judged = call("POST", f"{root}/analyse", document).json()
        assert judged["handling"]["target_low"] == "pourable"
        assert call("POST", f"{root}/shape", document).json()["piece"]["thickness_mm"] == 12
        assert call("POST", f"{root}/bake", {"document": document}).json()["forecast"]["ready_min"]["best"] > 0
        assert "gel" in [
            task["kind"] for task in call("POST", f"{root}/prep", {"document": document}).json()["plan"]["tasks"]
        ]
        card = call("POST", f"{root}/card", document).json()
        assert card["form"] == "Waffle"
        assert "240 g" in str(card["us_panel"]["notes"])
        one, other = read_document(sample()), read_document(document)
        assert "Bun → waffle" in [change.text for change in differences(one, other, load_library(), Settings())]
        made = call("POST", f"{root}/formulas", document)
        assert made.status_code == 201
    assert "waffle" not in forms()


@pytest.mark.parametrize("missing", ["shapes.csv", "baking.csv"])
def test_a_form_whose_row_is_missing_somewhere_stops_with_the_file_and_the_row(tmp_path, monkeypatch, missing):
    rows = {table: row for table, row in WAFFLE.items() if table != missing}
    with (
        grown(tmp_path, monkeypatch, rows),
        pytest.raises(LibraryError, match=f"{missing}: no row for the form waffle"),
    ):
        forms()


def test_a_row_that_names_what_is_not_there_stops_with_file_and_line(tmp_path, monkeypatch):
    rows = {"racc.csv": ("form", "bun", {"form": "volcano"})}
    with (
        grown(tmp_path, monkeypatch, rows),
        pytest.raises(LibraryError, match=r"racc.csv line \d+: form is not known") as refusal,
    ):
        forms()
    assert refusal.value.got == "volcano"


@dataclass(frozen=True, kw_only=True)
class SteamyWish(BakeWish):
    """A bake wish with a field that was made up."""

    steam_g: Annotated[float | None, Number(low=0, high=200, unit="g", label="steam")] = None


@dataclass(frozen=True, kw_only=True)
class SteamyFormula(Formula):
    """A formula that has it."""

    bake: Annotated[SteamyWish, Nested(record=SteamyWish)] = SteamyWish()


def test_a_made_up_bake_field_is_read_written_refused_described_told_and_in_the_contract():
    document = sample() | {"bake": {"steam_g": 40}}
    formula = read_record(SteamyFormula, document, Where())
    assert formula.bake.steam_g == 40
    assert write_record(formula)["bake"]["steam_g"] == 40
    assert record_schema(SteamyFormula)["properties"]["bake"]["properties"]["steam_g"]["maximum"] == 200
    with pytest.raises(FormulaError, match=r"bake.steam_g cannot be read; got 900; allowed: 0 to 200 g"):
        read_record(SteamyFormula, sample() | {"bake": {"steam_g": 900}}, Where())
    plain = read_record(SteamyFormula, sample(), Where())
    assert list(described_differences(plain.bake, formula.bake)) == ["steam as usual → 40 g"]
    contract = model_of(SteamyFormula).model_json_schema()["$defs"]["SteamyDocument"]
    assert contract["properties"]["steam_g"]["anyOf"] == [{"type": "number"}, {"type": "null"}]
    assert model_of(SteamyFormula)(**document).model_dump()["bake"]["steam_g"] == 40


def test_unknown_keys_survive_a_round_trip_over_http_in_every_object(caller, kitchen):
    document = sample() | {
        "own": 1,
        "bake": {"own": 2, "stages": [{"kind": "bake", "own": 3}]},
        "mix": {"own": 4},
        "targets": {"salt": {"own": 5}},
    }
    document["form"] = {**document["form"], "own": 6, "size": {"own": 7}}
    document["lines"][0] |= {"own": 8, "prep": {"own": 9, "steps": [{"act": "squeeze", "own": 10}]}}
    root = f"/api/kitchens/{kitchen.pk}/formulas"
    made = caller("baker")("POST", root, document).json()
    kept = caller("baker")("GET", f"{root}/{made['id']}").json()["document"]
    line = kept["lines"][0]
    places = [
        kept,
        kept["bake"],
        kept["bake"]["stages"][0],
        kept["mix"],
        kept["targets"]["salt"],
        kept["form"],
        kept["form"]["size"],
    ]
    assert [place["own"] for place in (*places, line, line["prep"], line["prep"]["steps"][0])] == list(range(1, 11))
    pack = {"ingredient": "salt", "name": "Sea salt", "own": 1, "label": {"style": "us", "per_g": 1, "own": 2}}
    packed = caller("baker")("POST", f"/api/kitchens/{kitchen.pk}/packs", {"document": pack}).json()["document"]
    assert (packed["own"], packed["label"]["own"]) == (1, 2)
