"""A kitchen's choices as a document: read with clear refusals, written whole, and taken by the command line."""

import json
from dataclasses import replace

import jsonschema
import pytest

from substrata.base.errors import SubstrataError
from substrata.base.settings import Eater, Settings, read_setting, read_settings, settings_schema, write_settings
from substrata.cli.main import main
from substrata.reformulation.request.balance_request import Wish, read_wish
from tests.support.doughs import document

CHOSEN = Settings(
    convention="eu",
    spoons="metric",
    currency="EUR",
    low_salt=True,
    eaters=(Eater(name="Ada", budgets={"cheese": 60.0}),),
)


def test_settings_come_back_as_they_were_written_and_keep_what_they_do_not_know():
    written = write_settings(CHOSEN) | {"colour": "blue"}
    assert read_settings(json.loads(json.dumps(written))) == replace(CHOSEN, extra={"colour": "blue"})
    assert write_settings(read_settings(written)) == written
    jsonschema.validate(written, settings_schema())
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate({"convention": "moon"}, settings_schema())


@pytest.mark.parametrize(
    ("content", "field"),
    [
        ({"convention": "moon"}, "convention"),
        ({"currency": "eur"}, "currency"),
        ({"low_salt": "yes"}, "low_salt"),
        ({"eaters": [{"name": "", "budgets": {}}]}, "eaters.1.name"),
        ({"eaters": [{"name": "Ada", "budgets": {"cheese": -1}}]}, "eaters.1.budgets.cheese"),
        ({"eaters": [{"name": "Ada", "age": 3}]}, "eaters.1"),
        ({"pans": [{"name": "Grey", "kind": "hat", "length_mm": 1, "width_mm": 1, "height_mm": 1}]}, "pans.1.kind"),
        ({"substrata_settings": 2}, "substrata_settings"),
    ],
)
def test_what_cannot_be_meant_is_refused_by_its_field(content, field):
    with pytest.raises(SubstrataError) as refusal:
        read_settings(content)
    assert refusal.value.field == field
    assert refusal.value.allowed


def test_one_choice_is_read_as_in_a_whole_document():
    assert read_setting("units", "us") == "us"
    for name, value in (("units", "feet"), ("currency", "euro"), ("mood", "good")):
        with pytest.raises(SubstrataError):
            read_setting(name, value)


def test_the_command_line_judges_by_a_kitchens_settings(tmp_path, capsys):
    formula = tmp_path / "dough.json"
    formula.write_text(json.dumps(document("bun", 4, almond_flour=100, erythritol=30, egg=100)))
    choices = tmp_path / "settings.json"
    choices.write_text(json.dumps(write_settings(replace(CHOSEN, convention="total"))))

    def net_carbs(*more):
        assert main(["analyse", str(formula), *more]) == 0
        brackets = json.loads(capsys.readouterr().out)["brackets"]
        return next(row["estimate"]["value"] for row in brackets if row["key"] == "net_carbs")

    assert net_carbs("--settings", str(choices)) > net_carbs() + 5  # total carbohydrate counts the sweetener too
    assert net_carbs("--settings", str(choices), "--convention", "us") == net_carbs()


def test_a_wish_is_read_as_declared():
    wish = read_wish({"targets": {"protein": {"low": 9}}, "without": ["nut", "egg"], "only_stock": True})
    assert (wish.targets["protein"].low, wish.targets["protein"].high) == (9, None)
    assert wish == replace(Wish(), targets=wish.targets, without=("nut", "egg"), only_stock=True)
    for content, field in (
        ({"minutes_most": 0}, "minutes_most"),
        ({"steps": "spoons"}, "steps"),
        ({"targets": {"protein": {"lowest": 9}}}, "targets.protein"),
        ({"may_fly": True}, ""),
    ):
        with pytest.raises(SubstrataError) as refusal:
            read_wish(content)
        assert refusal.value.field == field
