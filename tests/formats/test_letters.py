"""Names in any script on paper: printed where the typeface can, and said where it cannot."""

import io

import pdfplumber
import pytest

from conftest import a_recipe
from gentle_hem.cli import main
from gentle_hem.core.make_up import make_up
from gentle_hem.formats.files import FILE_WRITERS, Order
from gentle_hem.formats.letters import printed, unprintable


def words_of(file, name):
    recipe = a_recipe(name=name, figure={"name": name})
    written = FILE_WRITERS[file](Order(recipe, make_up(recipe)))
    with pdfplumber.open(io.BytesIO(written)) as pdf:
        return "\n".join(page.extract_text() for page in pdf.pages)


@pytest.mark.parametrize("name", ["Zoë Ødegård", "Ελένη Νίκα", "Наталья", "Łucja Żak", "Þóra", "Նարե"])
@pytest.mark.parametrize("file", ["pattern.pdf", "pattern-large.pdf"])
def test_names_the_typeface_has_are_printed(file, name):
    assert unprintable(name) == ""
    text = words_of(file, name)
    assert name in text
    assert "cannot print" not in text


@pytest.mark.parametrize(("name", "code"), [("王小明", "U+738B"), ("مريم", "U+0645"), ("அமுதா", "U+0B85")])
@pytest.mark.parametrize("file", ["pattern.pdf", "pattern-large.pdf"])
def test_letters_that_cannot_be_printed_are_said(file, name, code):
    text = words_of(file, f"Gown for {name}")
    assert "Gown for ▯" in text
    assert "cannot print" in text
    assert code in text


def test_hebrew_runs_from_the_right_and_the_rest_stays():
    assert printed("Gown of נועה לוי, red") == "Gown of יול העונ, red"
    assert printed("נועה") == "העונ"
    assert printed("plain") == "plain"


def test_the_command_says_which_letters(tmp_path, capsys):
    file = tmp_path / "gown.recipe.json"
    file.write_text(a_recipe(name="Gown 王").model_dump_json())
    assert main(["make", str(file), "--out", str(tmp_path / "out"), "--format", "pdf"]) == 0
    assert "王" in capsys.readouterr().err
