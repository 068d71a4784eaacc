"""The interface in a language nobody speaks: what is still English is a name, or was forgotten."""

import os
import re
import subprocess
from pathlib import Path

import pytest
from playwright.sync_api import expect

from pseudo import write_pseudo
from server import get, running
from workbench import numbered

WEB = Path(__file__).parents[2] / "web"

WORD = re.compile(r"[^\W\d_]{3,}")

DATES = (
    "January February March April May June July August September October November December Jan Feb Mar Apr Jun Jul Aug "
    "Sep Sept Oct Nov Dec Mon Tue Wed Thu Fri Sat Sun Monday Tuesday Wednesday Thursday Friday Saturday Sunday "
    "days day today tomorrow yesterday ago weeks week month"
)
"""As the browser's own language writes them."""

PAPER = "Letter Legal Roll JSON SVG DXF PDF HPGL CSV Gentle Hem"


@pytest.fixture(scope="module")
def pseudo(tmp_path_factory):
    """The demo studio served in the language, its interface built in it."""
    language = write_pseudo(tmp_path_factory.mktemp("language") / "pseudo.po")
    env = {**os.environ, "GENTLE_HEM_LANGUAGE": str(language)}
    subprocess.run(
        ["npx", "vite", "build", "--outDir", "dist-pseudo"], cwd=WEB, env=env, check=True, capture_output=True
    )
    with running(language=language) as server:
        yield server


def names_of(server):
    """What the studio's records and the pattern call things: no sentence of the program's."""
    rows = get(server, "/api/desk")["rows"]
    found = [text for row in rows for text in (row["title"], row["person"]["name"], row["occasion"])]
    return " ".join([*found, DATES, PAPER])


def english(text, names):
    known = set(WORD.findall(names.lower()))
    return sorted(
        {w for w in WORD.findall(text) if w.isascii() and re.search("[aeiou]", w.lower()) and w.lower() not in known}
    )


def test_the_bench_speaks_another_language(page, pseudo):
    number, names = numbered(pseudo, "Kite dress"), names_of(pseudo)
    page.goto(f"{pseudo.url}/commission/{number}")
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    made = get(pseudo, f"/api/commissions/{number}")
    screen = page.request.post(f"{pseudo.url}/api/make-up?unit=cm", data=made["recipe"]).json()
    for piece in screen["sheet"]["pieces"]:
        names += f" {piece['name']} " + " ".join(edge["name"] for edge in piece["edges"])
    names += " ".join(seam["name"] for seam in screen["seams"])
    for stage in ("figure", "bodice", "lower", "join", "pattern"):
        page.locator(f"#stage-{stage} h2 button").click()
        said = page.locator(f"#stage-{stage}").inner_text()
        assert re.search("[áéíóú]", said)
        assert english(said, names) == [], stage
    page.keyboard.press("Escape")
    page.locator("header").get_by_role("button", name="Wóřkíñgš").click()
    assert english(page.get_by_role("complementary").inner_text(), names) == []
    assert english(page.locator("header").inner_text(), names) == []


def test_the_desk_and_a_new_dress_speak_another_language(page, pseudo):
    names = names_of(pseudo)
    page.goto(pseudo.url)
    expect(page.get_by_role("heading", name="Kite dress")).to_be_visible()
    assert english(page.locator("body").inner_text(), names) == []
    page.goto(f"{pseudo.url}/new")
    expect(page.get_by_role("button", name=re.compile("Béģíñ|Bégíñ")).first).to_be_visible()
    assert english(page.locator("body").inner_text(), names) == []
