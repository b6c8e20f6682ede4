import io
import json
import subprocess
import sys

import pytest

from substrata.cli.main import main
from tests.support.doughs import document


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


@pytest.mark.parametrize(
    "arguments",
    [
        ("import", "-", "--pieces", "0"),
        ("import", "-", "--pieces", "-1"),
        ("bake", "-", "--offset", "inf"),
        ("bake", "-", "--offset", "nan"),
        ("steps", "-", "--batches", "nan"),
        ("steps", "-", "--batches", "inf"),
        ("feel", "-", "--class", "tacky", "--minute", "nan"),
        ("feel", "-", "--class", "tacky", "--temperature", "1e308"),
        ("export", "-", "--to", "text", "--batches", "0"),
        ("begin", "--form", "bun", "--pieces", "9" * 400),
        ("nonsense",),
    ],
)
def test_numbers_that_cannot_be_end_in_one_line(arguments, capsys, monkeypatch):
    monkeypatch.setattr("sys.stdin", io.StringIO(json.dumps(document(almond_flour=100, egg=50))))
    with pytest.raises(SystemExit) as ended:
        main(arguments)
    assert ended.value.code == 2
    assert len(capsys.readouterr().err.strip().splitlines()) == 1


@pytest.mark.parametrize(
    "change",
    [
        lambda d: d["lines"][0].update(grams=int("9" * 400)),
        lambda d: d["form"].update(pieces=int("9" * 400)),
        lambda d: d["bake"].update(stages=[{"kind": "bake", "minutes": 300, "oven_c": 250}] * 16),
    ],
)
def test_documents_that_cannot_be_end_in_one_line(said, change):
    told = document(almond_flour=100, egg=50, psyllium_powder=10, water=100)
    told.setdefault("bake", {})
    change(told)
    code, _, err = said("bake", "-", stdin=json.dumps(told))
    assert (code, len(err.strip().splitlines())) == (2, 1)


def test_brackets_in_brackets_end_in_one_line(said):
    code, _, err = said("analyse", "-", stdin="[" * 100_000)
    assert (code, len(err.strip().splitlines())) == (2, 1)


def test_whoever_reads_only_the_head_gets_no_complaint():
    command = f"{sys.executable} -m substrata export - --to text | head -1"
    told = json.dumps(document(almond_flour=100, egg=50, psyllium_powder=10, water=100))
    ran = subprocess.run(["bash", "-c", command], input=told, capture_output=True, text=True, check=False)
    assert ran.stderr == ""
    assert len(ran.stdout.splitlines()) == 1
