import io
import json

import pytest

from substrata.cli import main
from tests.substrata.conftest import document


@pytest.fixture
def said(capsys, monkeypatch):
    def run(*arguments, stdin=""):
        monkeypatch.setattr("sys.stdin", io.StringIO(stdin))
        code = main(arguments)
        captured = capsys.readouterr()
        return code, captured.out, captured.err

    return run


def test_analyse_prints_what_the_architecture_promises(said, tmp_path):
    file = tmp_path / "a.substrata.json"
    file.write_text(json.dumps(document(almond_flour=100, egg=30, salt=2)), encoding="utf8")
    code, out, _ = said("analyse", str(file))
    found = json.loads(out)
    assert code == 0
    assert found["totals"]["dough_g"] == 132
    for key in ("net_carbs_g", "total_carbs_g", "fibre_g", "protein_g", "fat_g", "energy_kcal", "sodium_mg"):
        assert set(found["per_piece"][key]) == {"value", "low", "high"}
    assert found["binder"]["load"]["value"] > 0
    assert found["binder"]["window"] == {"low": 0.7, "high": 8.0}
    assert 0 <= found["binder"]["heat_set_share"]["value"] <= 1
    assert found["water"]["fill"]["value"] > 0
    assert found["water"]["free_g"] >= 0
    assert {"lift", "allergens", "warnings"} <= set(found)


def test_import_then_analyse_in_a_pipe_and_as_a_table(said):
    code, out, err = said(
        "import", "-", "--form", "cracker", "--pieces", "30", stdin="1 cup almond flour\n1 egg\n2 kg moon dust\n"
    )
    assert code == 0
    assert "moon dust" in err
    code, table, _ = said("analyse", "-", "--table", stdin=out)
    assert code == 0
    assert "Almond flour, blanched" in table
    assert "left out: line p3" in table


def test_schema_is_json(said):
    assert json.loads(said("schema")[1])["title"] == "Substrata formula"


@pytest.mark.parametrize(
    "text", ["", "not json", "[]", '{"form": {"kind": "bun", "pieces": 0}}', '{"form": {"kind": "brick", "pieces": 1}}']
)
def test_bad_input_ends_with_two_and_one_line(said, text):
    code, out, err = said("analyse", "-", stdin=text)
    assert (code, out) == (2, "")
    assert err.startswith("substrata: ")
    assert err.count("\n") == 1


def test_a_missing_file_ends_with_two(said):
    assert said("analyse", "/nowhere/at/all.json")[0] == 2
