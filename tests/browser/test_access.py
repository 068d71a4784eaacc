"""WCAG 2.2 AA as far as a machine can tell: axe on every view, in both lights, and at 200 % zoom."""

import pytest
from playwright.sync_api import expect

from workbench import axe_faults, open_stage, shown


def a_view(page, studio, name):
    page.goto(studio.url)
    expect(page.get_by_role("heading", name="Ball gown")).to_be_visible()
    if name == "calendar":
        page.get_by_role("link", name="Calendar").click()
        expect(page.get_by_role("heading", level=1)).not_to_have_text("Desk")
    if name in ("commission", "word", "cloth"):
        page.get_by_role("heading", name="Harbour dance dress").click()
        expect(page.get_by_test_id("ribbon")).to_be_visible()
    if name == "cloth":
        open_stage(page, "pattern")
        page.get_by_role("button", name="How much cloth").click()
        expect(page.get_by_test_id("to-buy").first).to_be_visible()
    if name == "word":
        shown(page, "lower.sweep").click()
        expect(page.get_by_role("dialog")).to_be_visible()


@pytest.mark.parametrize(
    ("view", "light"),
    [("calendar", "day"), ("commission", "day"), ("word", "day"),
     # the evening light has the same words in other colours: looked at where every colour there is comes up
     ("desk", "evening"), ("commission", "evening"), ("word", "evening"), ("cloth", "evening")],
)  # fmt: skip
def test_axe_finds_nothing(page, studio, view, light):
    """Every other view is looked at by day where its words are: ``test_sizes``."""
    page.add_init_script(f"localStorage.setItem('hem.light', '{light}')")
    a_view(page, studio, view)
    assert axe_faults(page) == []


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
