"""What lies far beyond what a kitchen does: asked about, never judged as if it were bread."""

from substrata import analyse, load_library, read_document
from tests.support.doughs import document

LIBRARY = load_library()


def told(**lines):
    return analyse(read_document(document("bun", 8, **lines)), LIBRARY)


def sentence(analysis):
    return "".join(str(phrase.text) for phrase in analysis.summary)


def test_a_hundredweight_of_a_gum_is_asked_about():
    far = told(almond_flour=150, psyllium_husk=12_000, egg=100, water=300)
    (asked,) = (w for w in far.warnings if w.code == "amount-unlikely")
    assert (asked.severity, asked.lines) == ("act", ("psyllium-husk",))
    assert asked.text.endswith("120 g?")
    assert "not predicted" in sentence(far)
    assert "Texture:" not in sentence(far)
    assert not [b for b in far.brackets if "about at the limit" in b.note]


def test_kilograms_that_were_meant_to_be_grams():
    whole = document("bun", 8, almond_flour=150, egg=100, water=300)
    whole["lines"].append({"id": "x", "ingredient": "xanthan", "entered": "9 kg", "grams": 9000})
    asked = next(w for w in analyse(read_document(whole), LIBRARY).warnings if w.code == "amount-unlikely")
    assert asked.text.endswith(": 9 g?")


def test_a_large_batch_of_a_bakery_is_no_slip():
    many = told(almond_flour=6000, psyllium_powder=1200, egg=3000, water=12_000, salt=200, baking_powder=300)
    assert "amount-unlikely" not in {w.code for w in many.warnings}
    assert "Texture:" in sentence(many)
