"""The command line, as the contract writes it."""

import json
import re
import socket
import subprocess
import sys
from math import pi
from pathlib import Path

import pytest

from conftest import a_recipe
from gentle_hem.cli import main
from gentle_hem.core.recipe import Recipe
from long import examples

EXAMPLES = sorted((Path(__file__).parents[1] / "examples").glob("*.recipe.json"))


def test_sum_in_json_as_the_contract_writes_it(capsys):
    inputs = ["seam=34 in", "sweep=360", "length=7 in", "waist_allowance=1/2 in"]
    assert main(["sum", "circle", *inputs, "--json"]) == 0
    said = json.loads(capsys.readouterr().out)
    assert said["sum"] == "circle"
    radius = said["values"]["seam_radius"]
    assert radius == {"mm": pytest.approx(863.6 / (2 * pi)), "text": "5 3/8 in", "exact": "5.4113 in"}
    assert said["workings"][0]["formula"] == "seam ÷ (2π × sweep/360)"
    assert said["workings"][0]["line"] == "34 in ÷ 6.2832 = 5.411, on the tape 5 3/8 in"
    assert said["findings"] == []


def test_sum_for_reading(capsys):
    assert main(["sum", "gather", "seam=70", "cloth_width=140", "--unit", "cm"]) == 0
    assert "70 cm × 2 = 140 cm" in capsys.readouterr().out


@pytest.mark.parametrize(
    ("arguments", "part"),
    [
        (["sum", "circle", "seam=34", "length=7"], "write it as 34 in or 34 cm"),
        (["sum", "circle", "seam 34"], "key=value"),
        (["sum", "circle", "seam=34in", "length=7in", "pieces=2.5"], '"2.5" is not a whole number'),
        (["sum", "circle", "seam=34in", "length=7in", "sweep=wide"], '"wide" cannot be read as a number'),
        (["sum", "circle", "seam=0", "length=7in"], "out of range"),
        (["sum", "circle", "seam=34in", "seam=35in"], "twice"),
        (["sum", "knitting"], "skirt_length"),
        (["make", "missing.recipe.json", "--out", "x"], "cannot be opened"),
        (["make", str(EXAMPLES[0]), "--out", "x", "--format", "png"], "json, svg, dxf"),
        (["run", "--port", "99999"], "1 to 65535"),
        (["frobnicate"], "demo"),
        ([], "command"),
    ],
)
def test_bad_input_exits_2_with_one_sentence(arguments, part, capsys):
    assert main(arguments) == 2
    said = capsys.readouterr().err.strip()
    assert part in said
    assert "\n" not in said


def test_a_taken_port_is_said(capsys):
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        assert main(["demo", "--port", str(taken.getsockname()[1])]) == 2
    assert "is taken" in capsys.readouterr().err


def test_there_is_a_full_circle_first():
    assert any(path.name == "full-circle.recipe.json" for path in EXAMPLES)


@pytest.mark.parametrize("path", EXAMPLES[:: examples(3, 1)], ids=lambda path: path.name)
def test_every_example_makes_its_files_and_itself_again(path, tmp_path, capsys):
    assert main(["make", str(path), "--out", str(tmp_path)]) == 0
    made = json.loads((tmp_path / "garment.json").read_text())
    assert not [f for f in made["findings"] if f["severity"] == "stop"]
    assert Recipe.model_validate_json((tmp_path / "recipe.json").read_bytes()) == Recipe.model_validate_json(
        path.read_bytes()
    )


def test_a_broken_recipe_is_said_with_its_field(tmp_path, capsys):
    recipe = json.loads(next(e for e in EXAMPLES if e.name == "full-circle.recipe.json").read_text())
    recipe["lower"]["sweep"] = 4000
    (tmp_path / "bad.recipe.json").write_text(json.dumps(recipe))
    assert main(["make", str(tmp_path / "bad.recipe.json"), "--out", str(tmp_path)]) == 2
    assert "lower.sweep: 4000 degrees" in capsys.readouterr().err


def stopped_recipe():
    """Its waist was cut 4 cm too long."""
    return a_recipe(name="Too long", lower={"seam": "78cm"}).model_dump_json()


def test_make_prints_every_finding_and_says_when_it_is_not_ready(tmp_path, capsys):
    file = tmp_path / "too-long.recipe.json"
    file.write_text(stopped_recipe())
    assert main(["make", str(file), "--out", str(tmp_path / "out")]) == 3
    said = capsys.readouterr().out
    assert "stop: The waist seam does not meet" in said
    assert "not ready to cut" in said
    assert (tmp_path / "out" / "pattern.pdf").exists(), "the files are written all the same"


def test_make_several_recipes_into_a_folder_each(tmp_path, capsys):
    good, bad = tmp_path / "good.recipe.json", tmp_path / "bad.recipe.json"
    good.write_text(a_recipe(name="Good").model_dump_json())
    bad.write_text(stopped_recipe())
    out = tmp_path / "out"
    assert main(["make", str(good), str(bad), "--out", str(out), "--format", "json,csv"]) == 3
    assert {folder.name for folder in out.iterdir()} == {"good", "bad"}
    assert (out / "good" / "cut-list.csv").exists()
    assert main(["make", str(good), str(good), "--out", str(out), "--format", "csv"]) == 0, "one recipe named twice"
    twin = tmp_path / "twin" / "good.recipe.json"
    twin.parent.mkdir()
    twin.write_text(good.read_text())
    assert main(["make", str(good), str(twin), "--out", str(out), "--format", "csv"]) == 2
    assert "one name" in capsys.readouterr().err


def test_make_exits_with_one_for_a_fault_of_the_program(tmp_path, monkeypatch):
    from gentle_hem.core.lower.circle import CircleSkirt

    def stumble(self, host, notes):
        raise KeyError("a slip of the program")

    monkeypatch.setattr(CircleSkirt, "make_up", stumble)
    file = tmp_path / "gown.recipe.json"
    file.write_text(a_recipe().model_dump_json())
    assert main(["make", str(file), "--out", str(tmp_path / "out"), "--format", "json,svg,pdf"]) == 1
    assert (tmp_path / "out" / "garment.json").exists()


def test_all_that_is_compiled_is_compiled_at_set_up():
    """What ``./hem`` brings in at set-up brings in every module with loops that are compiled."""
    [asked] = re.findall(r'"-c", "(import gentle_hem[\w.]+)"', Path("hem").read_text())
    compiled = {
        ".".join(path.relative_to("src").with_suffix("").parts)
        for path in Path("src").rglob("*.py") if "@njit" in path.read_text()
    }  # fmt: skip
    assert {"gentle_hem.core.hang.kernels", "gentle_hem.core.hang.layers"} <= compiled
    brought = subprocess.check_output([sys.executable, "-c", f"{asked}; import sys; print(*sys.modules)"], text=True)
    assert compiled <= set(brought.split())
