"""The trade's rules stand in the project: every section that is cited exists, and nothing published cites any."""

import json
import re
from pathlib import Path

from gentle_hem.api.app import create_app
from gentle_hem.core.recipe import Recipe
from gentle_hem.recipe_page import recipe_page
from gentle_hem.store import Store

HOME = Path(__file__).parents[1]
PAGE = (HOME / "docs" / "trade.md").read_text()
SECTIONS = set(re.findall(r"^#{2,3} (\d+(?:\.\d+)?) ", PAGE, re.MULTILINE))
CITED = re.compile(r"(?i)\btrade(?:'s)? (\d+(?:\.\d+)?(?:, \d+(?:\.\d+)?)*)")


def cited():
    """Every section cited in the code and the tests, with where."""
    found = {}
    for folder in ("src", "tests", "web/src"):
        for file in (HOME / folder).rglob("*"):
            if file.suffix in (".py", ".ts", ".tsx") and file.name not in ("schema.d.ts", Path(__file__).name):
                for several in CITED.findall(file.read_text()):
                    for section in several.split(", "):
                        found.setdefault(section, set()).add(file.name)
    return found


def test_every_cited_section_exists():
    found = cited()
    assert len(found) > 20, "the code cites the trade"
    assert {section: files for section, files in found.items() if section not in SECTIONS} == {}


def test_every_rule_says_of_which_kind_it_is():
    parts = re.split(r"^#{2,3} ", PAGE, flags=re.MULTILINE)[1:]
    silent = [part.splitlines()[0] for part in parts if part.count("\n") > 2 and not re.search(
        r"\((?:practice|geometry|memory)(?:, (?:practice|geometry|memory))*\)", part)]  # fmt: skip
    assert silent == []


def test_nothing_published_cites_a_section():
    published = (
        json.dumps(Recipe.model_json_schema()),
        json.dumps(create_app(Store.__new__(Store)).openapi()),
        recipe_page(),
    )
    for text in published:
        assert not CITED.search(text)
        assert "handbook" not in text
