"""Messages: one catalog, whose keys and values are those of the code, written in the reader's units."""

import ast
import json
import re
from pathlib import Path

import pytest
from fluent.syntax import FluentParser
from fluent.syntax.ast import Message as Entry
from fluent.syntax.visitor import Visitor

from substrata import Dough, Settings, bake, load_library, prep, recipe, shape, steps
from substrata.base import Message, Reader, plain, reading
from substrata.base.messages import catalog
from substrata.base.messages.message import Capitalized, Joined, Listing, Uncapitalized
from substrata.base.messages.quantity import Quantity, in_grams
from substrata.base.tables.table_texts import table_text
from substrata.cli.main import main
from substrata.publishing.recipe_formats import as_text
from tests.conftest import sample
from tests.support.demo_doughs import demo_formulas
from tests.support.seeds import some

ROOT = Path(__file__).parents[2]
# 1 oz = 28.349523125 g, 1 in = 25.4 mm, 1 ft = 0.3048 m: NIST Handbook 44, appendix C; °F = °C × 9/5 + 32.
# Egg 71 °C = 160 °F and 177 °C = 350 °F: USDA FSIS, safe temperatures, and oven dials.
EXAMPLES = json.loads((ROOT / "messages/quantities.json").read_text())


class Variables(Visitor):
    def __init__(self):
        self.names = set()

    def visit_VariableReference(self, node):  # noqa: N802 - the visitor's own naming
        self.names.add(node.id.name)


def entries(files=None):
    rows = {}
    for file in files or sorted((ROOT / "messages/en-US").glob("*.ftl")):
        for entry in FluentParser().parse(file.read_text()).body:
            assert type(entry).__name__ != "Junk", (file.name, entry.content)
            if isinstance(entry, Entry):
                variables = Variables()
                variables.visit(entry)
                assert entry.id.name not in rows, f"{entry.id.name} stands twice"
                rows[entry.id.name] = variables.names
    return rows


def uses():
    """Each key that the code names, with the values that it hands over."""
    rows = []
    for file in [file for name in ("substrata", "kitchen", "api") for file in sorted((ROOT / name).rglob("*.py"))]:
        for call in ast.walk(ast.parse(file.read_text())):
            if not isinstance(call, ast.Call) or getattr(call.func, "id", "") != "Message":
                continue
            if isinstance(call.args[0], ast.Constant):
                rows.append((file.name, call.args[0].value, {word.arg for word in call.keywords}))
    return rows


def test_every_message_of_the_code_is_in_the_catalog_with_its_values_and_none_is_unused():
    known = entries()
    for file, key, values in uses():
        assert key in known, f"{file}: no message {key}"
        assert values == known[key], f"{file}: {key}"
    assert {key for _, key, _ in uses()} == set(known)


def page_calls():
    """Each call of a message in the page: the file, the key, the names of its values."""
    for file in sorted([*(ROOT / "web/src").rglob("*.vue"), *(ROOT / "web/src").rglob("*.ts")]):
        text = file.read_text()
        for call in re.finditer(r"(?<![\w.])\$?t\(\s*'([a-z0-9-]+)'(,\s*\{)?", text):
            yield file, call[1], object_names(text[call.end() :]) if call[2] else set()


def object_names(text):
    """Return the names of an object of the page, read from behind its opening brace."""
    names, depth, name = set(), 0, ""
    for token in re.finditer(r"'[^']*'|`[^`]*`|[\w$]+|\S", text):
        sign = token[0]
        if sign in ",}" and depth == 0:
            names |= {name} - {""}
            name = ""
            if sign == "}":
                return names
        elif depth == 0 and not name:
            name = sign
        depth += (sign in "([{") - (sign in ")]}")
    raise AssertionError("an object without an end")


def test_every_message_of_the_page_is_in_its_rooms_file_with_its_values_and_none_is_unused():
    known = {}
    for file in sorted((ROOT / "messages/en-US/page").glob("*.ftl")):
        known |= {key: (file.stem, names) for key, names in entries([file]).items()}
    used = set()
    for file, key, values in page_calls():
        assert key in known, f"{file.name}: no message {key}"
        room, names = known[key]
        assert values == names, f"{file.name}: {key}"
        # A room's messages are fetched with its first view: another room's may not be there.
        assert room in {"frame", *file.parts}, f"{file.name}: {key} is of {room}"
        used.add(key)
    assert used == set(known)


@pytest.mark.parametrize("row", EXAMPLES, ids=lambda row: f"{row['value']} {row['unit']}")
def test_a_quantity_is_written_in_the_readers_units(row):
    amount = Quantity(row["value"], row["unit"], row.get("high"), row.get("digits"), row.get("bare", False))
    for units in ("metric", "us"):
        with reading(Reader(units=units)):
            assert str(amount) == row[units]


def test_a_message_is_read_when_it_is_read_and_not_when_it_is_made():
    message = Message("list-last", most=in_grams(100), last=Message("list-last", most="egg", last="oil"))
    assert str(message) == "100 g and egg and oil"
    with reading(Reader(units="us")):
        assert str(message) == "3.53 oz and egg and oil"
        assert plain({"text": message, "n": (1,)}) == {"text": "3.53 oz and egg and oil", "n": [1]}
    assert str(message) == "100 g and egg and oil"


def test_parts_are_joined_listed_and_capitalized_when_they_are_read():
    weight = in_grams(12)
    assert str(Listing(["egg", "oil", "salt"])) == "egg, oil and salt"
    text = Joined(("", Message("list-last", most=weight, last="b"), "c"), "; ")
    assert str(text) == "12 g and b; c"
    assert str(Capitalized(Message("list-last", most="egg", last=weight))) == "Egg and 12 g"
    assert str(Uncapitalized("Too dry")) == "too dry"
    assert not Joined(("", ""))


def test_a_key_or_value_that_is_missing_fails_here_and_shows_the_key_to_a_baker(monkeypatch):
    with pytest.raises(catalog.CatalogError):
        str(Message("no-such-key"))
    with pytest.raises(catalog.CatalogError):
        str(Message("list-last", most="egg"))
    monkeypatch.setattr(catalog, "strict", [])
    assert str(Message("no-such-key", at=1)) == "no-such-key"
    assert "egg and " in str(Message("list-last", most="egg", of=2))


def test_an_unknown_language_is_read_in_the_source_language():
    with reading(Reader(language="tlh")):
        assert str(Message("list-last", most="egg", last="water")) == "egg and water"


def test_the_command_line_reads_in_the_units_that_are_asked_for(tmp_path, capsys):
    file = tmp_path / "rolls.substrata.json"
    file.write_text(json.dumps(sample()))
    for arguments, sign in ((["--units", "us"], "°F"), ([], "°C")):
        assert main([*arguments, "steps", str(file), "--table"]) == 0
        text = capsys.readouterr().out
        assert re.search(rf"Preheat the oven to \d+ {sign}", text)
        assert ("oz" in text) == (sign == "°F")


def test_a_table_names_its_figures_and_they_are_read_in_the_readers_units():
    text = table_text("Warm {added} to {38–45 °C}, {8 K} below {egg_safe_c}", added="water")
    assert str(text) == "Warm water to 38–45 °C, 8 °C below 71 °C (160 °F)"
    with reading(Reader(units="us")):
        assert str(text) == "Warm water to 100–113 °F, 14 °F below 71 °C (160 °F)"


def test_a_kitchen_in_us_units_is_handed_no_metric_figure():
    """Of every demo formula: what is printed, sent and followed at the bench; law texts name both scales, pans their own name."""
    for formula in some(demo_formulas(), 3):
        dough = Dough(formula, load_library(), Settings(units="us"))
        with reading(Reader(units="us")):
            handed = [
                as_text(recipe(dough)),
                *(f"{step.text} {step.target} {step.sign}" for step in steps(dough).steps),
            ]
            handed += [str(bake(dough).text), str(shape(dough).text), *(str(task.text) for task in prep(dough).tasks)]
        for text in handed:
            bare = re.sub(r"\d+ °C \(\d+ °F\)|[\d.]+ g (net carbs|polyols)|Net carbs [\d.]+ g", "", text)
            assert not re.search(r"\d ?(°C|mm|g|kg)\b", bare), text
