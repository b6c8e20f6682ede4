"""The library page: its examples run, and it names every function of the public face."""

import doctest
import inspect
from pathlib import Path

import substrata

PAGE = Path(__file__).parents[2] / "docs" / "library.md"


def test_the_examples_give_what_the_page_says():
    result = doctest.testfile(str(PAGE), module_relative=False)
    assert result.attempted > 25
    assert result.failed == 0


def test_the_page_shows_every_function_and_each_is_documented_and_typed():
    text = PAGE.read_text(encoding="utf8")
    functions = {
        name: getattr(substrata, name) for name in substrata.__all__ if inspect.isfunction(getattr(substrata, name))
    }
    assert {"prep", "balance", "next_test", "plan"} <= functions.keys()
    for name, function in functions.items():
        assert f"substrata.{name}(" in text, name
        assert "Returns:" in inspect.getdoc(function), name
        assert inspect.signature(function).return_annotation is not inspect.Signature.empty, name
