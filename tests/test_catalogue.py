"""The catalogue: every sentence can be taken out, and the program speaks what is put in its place."""

import json
import os
import re
import subprocess
import sys
from pathlib import Path

import polib
import pytest

from gentle_hem.catalogue import NAME, BadLanguage, Language, entries, entries_of, interface_entries
from gentle_hem.cli import main
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe
from gentle_hem.core.tongue import named, speak_names
from pseudo import write_pseudo

WORD = re.compile(r"[^\W\d_]{3,}")

JOINS = {"the", "again", "other"}
"""Of names made of names: "side seam of the lining", "waist other"."""


def english(text):
    """The words of a text that are not in the language nobody speaks."""
    return [word for word in WORD.findall(text) if word.isascii() and re.search("[aeiou]", word)]


def aloud(language=None):
    env = {**os.environ, "PYTHONPATH": "src:tests"}
    env.pop("GENTLE_HEM_LANGUAGE", None)
    if language:
        env["GENTLE_HEM_LANGUAGE"] = str(language)
    told = subprocess.run(
        [sys.executable, "tests/spoken_aloud.py"], env=env, capture_output=True, text=True, check=True
    )
    return json.loads(told.stdout)


@pytest.fixture(scope="module")
def spoken(tmp_path_factory):
    return aloud(write_pseudo(tmp_path_factory.mktemp("language") / "pseudo.po"))


def test_every_sentence_of_every_example_is_spoken_in_another_language(spoken):
    kept = {}
    for name, example in spoken.items():
        assert len(example["said"]) > 30, name
        for kind, text in example["said"]:
            words = [word for word in english(text) if word not in JOINS]
            if words:
                kept.setdefault((kind, text), words)
    assert kept == {}


def test_what_is_cut_is_the_same_in_any_language(spoken):
    plain = aloud()
    assert {name: one["cut"] for name, one in spoken.items()} == {name: one["cut"] for name, one in plain.items()}
    assert all(any(english(text) for _, text in one["said"]) for one in plain.values())


def test_a_new_part_needs_nothing_for_its_sentences_to_be_found():
    source = '''
class Cummerbund(Trim):
    """A cummerbund 8 cm wide."""
    title: ClassVar[str] = "Cummerbund"
    sentences: ClassVar[tuple[str, ...]] = ("A cummerbund {width} wide[folds:, in {folds} folds].",)
    words: ClassVar[dict[str, Word]] = {"width": length("width"), "way": choice("way", ("up", "folds up"))}
    kind: Literal["cummerbund"] = "cummerbund"

    def make_up(self, dress, where, notes):
        long = notes.work("cut long", 2, "{waist} + lap", waist=self.waist)
        if long < 1:
            raise CannotMake(f"the waist of {self.waist} is too small for a {self.title.lower()}")
        return seam_of("cummerbund seam", (what, "top"), (below, "waist"))
'''
    found = {(one.text, one.context) for one in entries_of(source, "cummerbund.py")}
    sentences = {text for text, context in found if not context}
    assert sentences == {
        "Cummerbund", "A cummerbund {width} wide[folds:, in {folds} folds].", "width", "way", "folds up", "cut long",
        "{waist} + lap", "the waist of {0} is too small for a {1}",
    }  # fmt: skip
    assert {"waist", "cummerbund seam", "top"} <= {text for text, context in found if context == NAME}


def test_a_translation_may_turn_the_order_of_what_is_named_round(tmp_path):
    """Golden: by hand, an f-string whose values change places, and a name within it that is spoken too."""
    file = polib.POFile()
    file.append(polib.POEntry(msgid="the {0} has no {1} any more", msgstr="chýba {1} na diele {0}"))
    file.append(polib.POEntry(msgid="waist", msgctxt=NAME, msgstr="pás"))
    file.save(str(tmp_path / "sk.po"))
    made = """
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe
import json, pathlib
recipe = read_recipe(json.loads(pathlib.Path("examples/full-circle.recipe.json").read_text()))
try:
    make_up(recipe).pieces[0].edge("waist of hers")
except KeyError as wrong:
    print(wrong.why)
"""
    told = subprocess.run(
        [sys.executable, "-c", made], capture_output=True, text=True, check=True,
        env={**os.environ, "GENTLE_HEM_LANGUAGE": str(tmp_path / "sk.po"), "PYTHONPATH": "src"},
    )  # fmt: skip
    piece = make_up(example("full-circle")).pieces[0].name
    assert told.stdout.strip() == f"chýba pás of hers na diele {piece}"


def example(name):
    return read_recipe(json.loads(Path("examples", f"{name}.recipe.json").read_text()))


@pytest.mark.parametrize(
    ("said", "why"),
    [
        ("the {0} has none any more", "must have the same words in braces (0, 1)"),
        ("the {0} has no {2} any more", "must have the same words in braces (0, 1)"),
    ],
)
def test_a_translation_that_loses_a_value_is_refused_with_its_line(tmp_path, said, why):
    file = polib.POFile()
    file.append(polib.POEntry(msgid="the {0} has no {1} any more", msgstr=said))
    file.save(str(tmp_path / "x.po"))
    with pytest.raises(BadLanguage, match=re.escape(why)):
        Language.read(tmp_path / "x.po")


def test_a_file_that_is_no_catalogue_is_refused(tmp_path):
    (tmp_path / "x.po").write_bytes(b"\xff\xfe\x00nothing of the kind")
    with pytest.raises(BadLanguage, match="cannot be read as a PO file"):
        Language.read(tmp_path / "x.po")
    with pytest.raises(BadLanguage, match="cannot be read as a PO file"):
        Language.read(tmp_path / "none.po")


@pytest.mark.parametrize("command", [["./hem", "demo"], [sys.executable, "-m", "gentle_hem.cli", "demo"]])
def test_a_language_that_is_not_there_is_said_in_a_sentence(command):
    env = {**os.environ, "GENTLE_HEM_LANGUAGE": "nowhere/sk.po", "PYTHONPATH": "src"}
    told = subprocess.run(command, env=env, capture_output=True, text=True, check=False)
    assert told.returncode
    assert "GENTLE_HEM_LANGUAGE" in told.stderr
    assert "nowhere/sk.po" in told.stderr
    assert "Traceback" not in told.stderr


def test_names_are_spoken_whole_or_by_the_longest_names_in_them():
    speak_names({"side": "bok", "side seam": "bočný šev", "skirt": "sukňa"})
    try:
        assert named("side seam") == "bočný šev"
        assert named("skirt side seam") == "sukňa bočný šev"
        assert named("Skirt side") == "Sukňa bok"
        assert named("inside {side} [side: side]") == "inside {side} [side: bok]"
    finally:
        speak_names({})
    assert named("side seam") == "side seam"


def test_the_catalogue_is_written_with_the_places_of_every_sentence(tmp_path):
    assert main(["catalogue", "--out", str(tmp_path / "catalogue.pot")]) == 0
    file = polib.pofile(str(tmp_path / "catalogue.pot"))
    everything = [*entries(), *interface_entries(Path("web"))]
    assert {(one.msgid, one.msgctxt or "") for one in file} == {(one.text, one.context) for one in everything}
    assert len(file) > 2500
    one = next(entry for entry in file if entry.msgid.startswith("A fault of the program, not of your pattern"))
    place, line = one.occurrences[0]
    text = Path("src/gentle_hem", place).read_text().splitlines()
    assert any("A fault of the program" in said for said in text[int(line) - 2 : int(line) + 2])
    assert any(place.startswith("web/src/text.ts") for e in file for place, _ in e.occurrences)
