"""Settle on the command line: JSON out and nothing else, and clear refusals."""

import json
import subprocess
import sys

import pytest

from substrata.base.errors import FormulaError
from substrata.cli.balance_text import read_targets
from substrata.cli.main import main
from substrata.formula.formula_document import read_document, write_document
from tests.reformulation.conftest import DEMO, HOUSE, values

ROLLS = DEMO["Market rolls, egg-free"]


@pytest.fixture
def file(tmp_path):
    def write(formula, name="a"):
        path = tmp_path / f"{name}.substrata.json"
        path.write_text(json.dumps(write_document(formula)), encoding="utf8")
        return str(path)

    return write


def test_balance_answers_with_ways_whose_documents_can_be_read(file, capsys):
    assert main(["balance", file(ROLLS), "--target", "net_carbs<=2.8", "--lock", "psyllium-powder"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["status"] == "settled"
    assert set(told) >= {"status", "ways", "nearest", "clash"}
    for way in told["ways"]:
        assert set(way) >= {"name", "document", "changes", "brackets", "handling", "minutes", "holds"}
        after = read_document(way["document"])
        assert values(after)["net_carbs"] <= 2.8001
        assert {line.grams for line in after.lines if line.id == "psyllium-powder"} == {36.0}
        assert way["brackets"]["net_carbs"]["after"] < way["brackets"]["net_carbs"]["before"]


def test_what_cannot_be_met_is_told_with_its_clash(file, capsys):
    assert main(["balance", file(ROLLS), "--target", "net_carbs<=1", "--target", "protein>=14", "--nothing-new"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["status"] == "nearest"
    assert told["nearest"]
    assert told["clash"]
    assert all(set(entry) == {"limit", "price"} for entry in told["clash"])
    assert main(["balance", file(ROLLS), "--target", "net_carbs<=1", "--table"]) == 0
    assert "nearest" in capsys.readouterr().out


def test_a_saved_version_leads_back(file, capsys):
    from tests.reformulation.conftest import but

    bun = HOUSE["bun-psyllium"]
    assert main(["balance", file(but(bun, water=450), "b"), "--saved", file(bun)]) == 0
    changes = json.loads(capsys.readouterr().out)["ways"][0]["changes"]
    assert any(text.startswith("−") and "water" in text for text in changes)


def test_swap_reach_and_begin(file, capsys):
    assert main(["swap", file(DEMO["Mustard twists"]), "--without", "tree-nut"]) == 0
    swapped = json.loads(capsys.readouterr().out)
    assert "almond-flour" not in {line["ingredient"] for line in swapped["ways"][0]["document"]["lines"]}
    assert main(["reach", file(ROLLS), "net_carbs"]) == 0
    ends = json.loads(capsys.readouterr().out)
    assert ends["low"] < ends["now"] < ends["high"]
    assert main(["begin", "--form", "bun", "--target", "net_carbs<=4", "--without", "dairy"]) == 0
    begun = json.loads(capsys.readouterr().out)["formulas"]
    assert len(begun) >= 3
    assert all(read_document(document).form == "bun" for document in begun)
    assert main(["begin", "--form", "rope", "--without", "dairy", "--table"]) == 0
    assert "no starter formula works" in capsys.readouterr().out


def test_nothing_but_the_answer_stands_on_standard_output(file):
    """The solver's library prints now and then whatever it is told: seen on this very wish."""
    run = subprocess.run(
        [sys.executable, "-m", "substrata", "swap", file(DEMO["Broccoli wraps"]), "--without", "egg"],
        capture_output=True, text=True, check=True,
    )  # fmt: skip
    assert json.loads(run.stdout)["status"] == "settled"


@pytest.mark.parametrize(
    "arguments",
    [
        ["balance", "F", "--thickness-most", "-1"], ["balance", "F", "--texture", "luck>=3"],
        ["balance", "F", "--target", "net_carbs=<3"], ["balance", "F", "--target", "luck<=3"], ["balance", "F", "--lock", "nobody"],
        ["swap", "F", "--without", "gluten"], ["reach", "F", "luck"], ["begin", "--form", "sandcastle"], ["balance", "/nowhere"],
    ],
)  # fmt: skip
def test_bad_input_ends_with_two_and_one_line(arguments, file, capsys):
    assert main([file(ROLLS) if a == "F" else a for a in arguments]) == 2
    captured = capsys.readouterr()
    assert captured.out == ""
    assert captured.err.startswith("substrata: ")


def test_targets_are_read_as_they_are_written():
    told = read_targets(["net_carbs<=3", "net_carbs >= 1,5", "protein≥8", "salt=1"])
    assert (told["net_carbs"].low, told["net_carbs"].high) == (1.5, 3.0)
    assert (told["protein"].low, told["protein"].high) == (8.0, None)
    assert told["salt"].low == told["salt"].high == 1.0
    with pytest.raises(FormulaError, match="cannot be read"):
        read_targets(["protein about 8"])
