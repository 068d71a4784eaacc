"""What a browser test does at the workbench, said once."""

from pathlib import Path

from playwright.sync_api import expect

from server import get


def open_commission(page, studio, title):
    page.goto(studio.url)
    page.get_by_role("heading", name=title).click()
    expect(page.get_by_test_id("ribbon")).to_be_visible()


STAGES = {"figure": "figure", "bodice": "bodice", "steps": "bodice", "band": "lower", "lower": "lower",
          "trims": "lower", "join": "join"}  # fmt: skip


def open_stage(page, stage):
    """Open a stage of the way through, if it is folded."""
    head = page.locator(f"#stage-{stage} h2 button")
    if head.get_attribute("aria-expanded") == "false":
        head.click()
    expect(head).to_have_attribute("aria-expanded", "true")


def add_to(page, label, kind):
    """Choose what is done or added, and add it."""
    open_stage(page, "bodice" if label == "Do to the pieces" else "lower")
    form = page.get_by_role("form", name=label)
    form.locator("select").select_option(kind)
    form.get_by_role("button", name="Add").click()


def word(page, path):
    return page.locator(f'[data-word="{path}"]')


def shown(page, path):
    """A live word where it can be seen: its stage opened, and its sentence asked for where that waits."""
    open_stage(page, STAGES.get(path.split(".")[0], "pattern"))
    found = word(page, path)
    expect(found).to_be_attached()
    if not found.is_visible():
        found.locator("xpath=ancestor::section[1]").locator("[data-more]").click()
    expect(found).to_be_visible()
    return found


def choose(page, path, option):
    """Click a live word, choose one of what it may be, close its popover."""
    shown(page, path).click()
    page.get_by_role("dialog").get_by_role("radio", name=option, exact=True).click()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_be_hidden()


def type_word(page, path, typed):
    """Click a live word, type over it, close its popover."""
    shown(page, path).click()
    field = page.get_by_role("dialog").get_by_role("textbox")
    field.fill(typed)
    return field


def numbered(studio, title):
    """The number of a commission by its title."""
    return next(row["id"] for row in get(studio, "/api/desk")["rows"] if row["title"] == title)


AXE = Path(__file__).parents[1] / "web" / "node_modules" / "axe-core" / "axe.min.js"
RULES = "['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']"


def axe_faults(page):
    """What axe finds wrong in what is shown."""
    page.evaluate(AXE.read_text())  # the pages allow no script but their own
    found = page.evaluate(f"axe.run(document, {{runOnly: {RULES}}})")
    return [(v["id"], [node["html"][:120] for node in v["nodes"]]) for v in found["violations"]]
