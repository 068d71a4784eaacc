"""WCAG 2.2 AA as far as a machine can tell: axe on every view, in both lights, and at 200 % zoom."""

from pathlib import Path

import pytest
from playwright.sync_api import expect

from workbench import open_stage, shown

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"
RULES = "['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']"


def faults(page):
    page.evaluate(AXE.read_text())  # the pages allow no script but their own
    found = page.evaluate(f"axe.run(document, {{runOnly: {RULES}}})")
    return [(v["id"], [node["html"][:120] for node in v["nodes"]]) for v in found["violations"]]


def a_view(page, studio, name):
    page.goto(studio.url)
    expect(page.get_by_role("heading", name="Ball gown")).to_be_visible()
    if name == "sums":
        page.keyboard.press("s")
        page.get_by_role("dialog").get_by_label("finished length").fill("7 in")
    if name == "new dress":
        page.keyboard.press("n")
    if name == "person":
        page.goto(f"{studio.url}/people/1")
        expect(page.get_by_role("table")).to_be_visible()
    if name == "costs":
        page.get_by_role("heading", name="Harbour dance dress").click()
        expect(page.get_by_test_id("ribbon")).to_be_visible()
        page.keyboard.press("6")
        page.get_by_role("button", name="Costs and quote").click()
        expect(page.get_by_role("dialog").get_by_text("In all")).to_be_visible()
    if name == "practice":
        page.goto(f"{studio.url}/practice")
        page.get_by_label("Your answer").fill("1")
        page.keyboard.press("Enter")
        expect(page.get_by_role("status")).to_be_visible()
    if name in ("people", "words", "calendar", "records"):
        page.get_by_role("link", name=name.capitalize()).click()
        expect(page.get_by_role("heading", level=1)).not_to_have_text("Desk")
    if name in ("commission", "word", "cloth", "making", "fittings"):
        page.get_by_role("heading", name="Harbour dance dress").click()
        expect(page.get_by_test_id("ribbon")).to_be_visible()
    if name == "cloth":
        open_stage(page, "pattern")
        page.get_by_role("button", name="How much cloth").click()
        expect(page.get_by_test_id("to-buy").first).to_be_visible()
    if name == "making":
        page.keyboard.press("6")
        expect(page.get_by_role("article")).to_be_visible()
    if name == "fittings":
        page.keyboard.press("7")
        page.get_by_role("button", name="A fitting today").click()
        page.locator("#seen").select_option("neck_stands_off")
    if name == "laid":
        page.get_by_role("heading", name="Midsummer dance dress").click()
        page.get_by_label("Which seam").select_option("bodice side seam")
        page.get_by_role("button", name="Lay together").click()
        expect(page.get_by_test_id("laid-together")).to_be_visible()
    if name == "workings":
        page.get_by_role("heading", name="Sundress").click()
        page.get_by_role("button", name="Workings").click()
        expect(page.get_by_test_id("draft-steps")).to_be_visible()
    if name == "falls":
        page.get_by_role("link", name="Cloths").click()
        page.get_by_role("button", name="Change Chalk linen").click()
        page.get_by_text("How it falls", exact=True).click()
        expect(page.get_by_test_id("falls")).to_be_visible(timeout=90_000)
    if name == "hang":
        page.get_by_role("heading", name="Harbour master's suit dress").click()
        page.get_by_role("button", name="Hang it before it is cut").click()
        expect(page.get_by_test_id("hang")).to_have_attribute("data-state", "rest", timeout=90_000)
    if name == "word":
        shown(page, "lower.sweep").click()
        expect(page.get_by_role("dialog")).to_be_visible()


VIEWS = [
    "desk", "calendar", "people", "words", "sums", "new dress", "commission", "word", "cloth", "making", "fittings",
    "person", "records", "practice", "costs", "laid", "falls", "hang", "workings",
]  # fmt: skip
IN_EVENING = ["desk", "commission", "word", "cloth", "falls"]
"""The evening light has the same words in other colours: looked at where every colour there is comes up."""


@pytest.mark.parametrize(
    ("view", "light"), [*((view, "day") for view in VIEWS), *((view, "evening") for view in IN_EVENING)]
)
def test_axe_finds_nothing(page, studio, view, light):
    page.add_init_script(f"localStorage.setItem('hem.light', '{light}')")
    a_view(page, studio, view)
    assert faults(page) == []


def test_works_at_200_per_cent(page, studio):
    """A 1280 px window at 200 % has 640 px of layout: nothing may run off sideways."""
    page.set_viewport_size({"width": 640, "height": 400})
    a_view(page, studio, "commission")
    overflow = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
    assert overflow <= 0
    shown(page, "lower.length").scroll_into_view_if_needed()
    expect(page.locator('[data-word="lower.length"]')).to_be_visible()
    page.locator('[data-remedy="new-radius"]').click()
    expect(page.get_by_test_id("join-sentence")).to_have_text("The waist meets.")
