"""What a browser test does at the workbench, said once."""

from playwright.sync_api import expect

from server import get


def open_commission(page, studio, title):
    page.goto(studio.url)
    page.get_by_role("heading", name=title).click()
    expect(page.get_by_test_id("ribbon")).to_be_visible()


def add_to(page, label, kind):
    """Choose what is done or added, and add it."""
    form = page.get_by_role("form", name=label)
    form.locator("select").select_option(kind)
    form.get_by_role("button", name="Add").click()


def word(page, path):
    return page.locator(f'[data-word="{path}"]')


def choose(page, path, option):
    """Click a live word, choose one of what it may be, close its popover."""
    word(page, path).click()
    page.get_by_role("dialog").get_by_role("radio", name=option, exact=True).click()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_be_hidden()


def type_word(page, path, typed):
    """Click a live word, type over it, close its popover."""
    word(page, path).click()
    field = page.get_by_role("dialog").get_by_role("textbox")
    field.fill(typed)
    return field


def numbered(studio, title):
    """The number of a commission by its title."""
    return next(row["id"] for row in get(studio, "/api/desk")["rows"] if row["title"] == title)
