"""First times, with actions counted: an action is a click, or a field filled in with the keys that lead to it."""

import io
import re
from math import pi

import pdfplumber
import pytest
from playwright.sync_api import expect

from server import get
from workbench import STAGES, add_to, open_stage, shown


class Hands:
    """A page whose actions are counted."""

    def __init__(self, page):
        self.page, self.actions = page, 0

    def click(self, locator):
        self.actions += 1
        locator.click()

    def fill(self, locator, typed):
        self.actions += 1
        locator.fill(typed)

    def stage(self, name):
        """A stage opened, if it is folded."""
        self.actions += self.page.locator(f"#stage-{name} h2 button").get_attribute("aria-expanded") == "false"
        open_stage(self.page, name)

    def select(self, locator, choice):
        self.actions += 1
        locator.select_option(choice)

    def add(self, label, kind):
        """Chosen, then added: two."""
        self.actions += 2
        add_to(self.page, label, kind)

    def type(self, path, typed):
        """A live word typed over where it stands."""
        self.stage(STAGES[path.split(".")[0]])
        self.actions += 1
        found = shown(self.page, path)
        found.focus()
        self.page.keyboard.press("Enter")
        self.page.wait_for_function("document.activeElement?.closest('[role=dialog]')")
        self.page.keyboard.type(typed)
        self.page.keyboard.press("Enter")


@pytest.fixture
def american(browser):
    """A browser whose people measure in inches, on which nothing has been chosen yet."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True, locale="en-US")
    page = context.new_page()
    page.set_default_timeout(20_000)
    yield page
    context.close()


def test_an_inch_dressmaker_with_a_paper_bodice_prints_a_full_circle(american, studio):
    page, hands = american, Hands(american)
    page.goto(studio.url)
    hands.click(page.get_by_role("button", name="New dress"))
    expect(page.get_by_label("Name of the dress")).to_be_focused()
    expect(page.get_by_label("Unit")).to_have_value("in")  # as people here measure
    hands.fill(page.get_by_label("Name of the dress"), "Picnic dress")
    hands.fill(page.get_by_label("Whose it is"), "Somebody New")
    hands.click(page.get_by_text("circle dress", exact=True).last)
    hands.click(page.get_by_role("button", name="Begin"))
    expect(page.get_by_role("heading", name="Picnic dress")).to_be_visible()
    for path, typed in (
        ("bodice.front.centre_to_dart", "3 5/8"), ("bodice.front.dart_to_side", "3 3/4"),
        ("bodice.back.centre_to_dart", "3 3/8"), ("bodice.back.dart_to_side", "3 1/2"),
        ("bodice.front_side", "8"), ("bodice.back_side", "8"),
    ):  # fmt: skip
        hands.type(path, typed)
    expect(page.get_by_test_id("join-sentence")).to_have_text("The waist meets.")
    hands.click(page.locator("#stage-pattern h2 button"))
    expect(page.get_by_role("radio", name="Letter")).to_have_attribute("aria-checked", "true")
    with page.expect_download() as download:
        hands.click(page.get_by_role("link", name="Pattern for your printer"))
    assert hands.actions <= 15
    pages = pdfplumber.open(io.BytesIO(download.value.path().read_bytes())).pages
    assert (pages[0].width, pages[0].height) == (612, 792)  # Letter
    # by hand: twice all four edges over 2π is the radius of the waist
    commission = next(row["id"] for row in get(studio, "/api/desk")["rows"] if row["title"] == "Picnic dress")
    made = get(studio, f"/api/commissions/{commission}")["recipe"]
    assert (made["unit"], made["lower"]["kind"], made["lower"]["sweep"]) == ("in", "circle", 360)
    radius = 2 * (3.625 + 3.75 + 3.375 + 3.5) / (2 * pi)
    page.get_by_role("button", name="Workings").click()
    expect(page.get_by_role("button", name="seam radius").first).to_contain_text(f"{round(radius * 8) // 8}")


def test_measured_drafted_styled_by_steps_with_gores_sleeves_and_a_collar_and_printed(page, studio):
    hands = Hands(page)
    page.goto(studio.url)
    hands.click(page.get_by_role("button", name="New dress"))
    hands.fill(page.get_by_label("Name of the dress"), "Regatta dress")
    hands.fill(page.get_by_label("Whose it is"), "Somebody New")
    hands.select(page.get_by_label("Where the bodice comes from"), "two_lengths")
    hands.click(page.get_by_role("button", name="Begin"))
    expect(page.get_by_role("heading", name="Regatta dress")).to_be_visible()
    for key, typed in (("bust_girth", "94"), ("waist_girth", "74"), ("hip_girth", "100")):
        hands.type(f"figure.measures.{key}", typed)
    hands.stage("bodice")
    for kind in ("neckline", "hollow"):
        hands.add("Do to the pieces", kind)
    hands.stage("lower")
    hands.select(page.get_by_label("Lower part", exact=True), "gores")
    for kind in ("sleeve", "stand_collar"):
        hands.add("Add to the garment", kind)
    expect(page.locator('[data-piece="stand collar"]')).to_be_visible()
    expect(page.locator('[data-piece="sleeve"]')).to_be_visible()
    expect(page.get_by_test_id("dress").locator('[data-line^="gore"]').first).to_be_attached()
    expect(page.get_by_test_id("saved")).to_have_text(re.compile(r"^saved \d\d:\d\d$"))
    hands.click(page.locator("#stage-pattern h2 button"))
    with page.expect_download() as download:
        hands.click(page.get_by_role("link", name="Pattern for your printer"))
    with pdfplumber.open(io.BytesIO(download.value.path().read_bytes())) as pdf:
        listed = pdf.pages[0].extract_text()
    for piece in ("bodice front", "bodice back", "gore", "sleeve", "stand collar"):
        assert piece in listed
    assert hands.actions <= 22  # three measures, two steps, two trims, and the way through


def test_a_cut_skirt_is_rescued_into_a_dress_and_printed(page, studio):
    """A full circle that was cut too small: its stitching line measures 72 cm, and the bodice it must meet 74."""
    hands = Hands(page)
    page.goto(studio.url)
    hands.click(page.get_by_role("button", name="New dress"))
    hands.fill(page.get_by_label("Name of the dress"), "Rescued dress")
    hands.fill(page.get_by_label("Whose it is"), "Somebody New")
    hands.click(page.get_by_text("circle dress", exact=True).last)
    hands.click(page.get_by_role("button", name="Begin"))
    expect(page.get_by_role("heading", name="Rescued dress")).to_be_visible()
    for path, typed in (
        ("bodice.front.centre_to_dart", "9.5"), ("bodice.front.dart_to_side", "9.5"),
        ("bodice.back.centre_to_dart", "9"), ("bodice.back.dart_to_side", "9"),
        ("bodice.front_side", "20"), ("bodice.back_side", "20"),
    ):  # fmt: skip
        hands.type(path, typed)
    hands.type("lower.seam", "72")
    hands.click(page.get_by_role("button", name="It is cut already"))
    expect(page.get_by_text("It is cut already: these numbers stay as they were")).to_be_visible()
    sentence = page.get_by_test_id("join-sentence")
    expect(sentence).to_have_text("The skirt is 2.0 cm shorter than the bodice.")
    expect(page.get_by_role("combobox", name="Lower part", exact=True)).to_have_count(0)
    expect(page.locator('[data-word^="lower."]')).to_have_count(0)  # told, and not to be changed
    # by hand: 20 mm over the 2π of a full circle is 3.2 mm
    way = page.locator('[data-remedy="cut-lower"]')
    expect(way).to_contain_text("Cut its waist lower by 0.3 cm")
    hands.click(way)
    expect(sentence).to_have_text("The waist meets.")
    expect(page.get_by_test_id("saved")).to_have_text(re.compile(r"^saved \d\d:\d\d$"))
    hands.click(page.locator("#stage-pattern h2 button"))
    with page.expect_download() as download:
        hands.click(page.get_by_role("link", name="Pattern for your printer"))
    with pdfplumber.open(io.BytesIO(download.value.path().read_bytes())) as pdf:
        assert "skirt front" in pdf.pages[0].extract_text()
    commission = next(row["id"] for row in get(studio, "/api/desk")["rows"] if row["title"] == "Rescued dress")
    made = get(studio, f"/api/commissions/{commission}")["recipe"]
    assert made["join"]["down"] == pytest.approx(20 / (2 * pi), abs=0.01)
    assert made["lower"]["seam"] == 720
    assert hands.actions <= 18
