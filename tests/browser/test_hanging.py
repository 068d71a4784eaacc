"""A dress hung in the browser: turned by keys, its hem read, a levelled hem taken into the pattern."""

from playwright.sync_api import expect

from workbench import open_commission, open_stage

DRESS = "Harbour master's suit dress"


def hung(page, studio):
    open_commission(page, studio, DRESS)
    page.get_by_role("button", name="Hang it before it is cut").click()
    room = page.get_by_test_id("hang")
    expect(room).to_have_attribute("data-state", "rest", timeout=60_000)
    return room


def drawn(page):
    """What is drawn, as the bytes of its picture."""
    return page.evaluate("document.querySelector('[data-testid=hang] canvas').toDataURL()")


def test_a_dress_is_hung_turned_by_keys_read_and_its_hem_levelled(page, studio):
    room = hung(page, studio)
    assert int(room.locator("canvas").get_attribute("data-drawn")) > 400
    before = drawn(page)
    turn = room.get_by_role("slider", name="Turned")
    turn.focus()
    at = int(turn.input_value())
    page.keyboard.press("ArrowRight")
    expect(turn).to_have_value(str(at + 5))
    assert drawn(page) != before
    room.get_by_role("button", name="back", exact=True).click()
    expect(turn).to_have_value("180")
    behind = drawn(page)
    room.get_by_role("radio", name="where it is tight").click()
    assert drawn(page) != behind
    ribbon = room.get_by_test_id("hem-ribbon")
    expect(ribbon.get_by_role("row")).to_have_count(10)
    expect(ribbon.get_by_role("row").nth(1)).to_contain_text("at the centre front")
    expect(room.get_by_test_id("hang-words")).to_contain_text("The hem hangs")
    room.get_by_role("button", name="Take the levelled hem into the pattern").click()
    expect(room.get_by_text("The recipe has changed since this was hung.")).to_be_visible()
    room.get_by_role("button", name="Back to the sheet").click()
    open_stage(page, "bodice")
    levelled = page.locator('[data-word^="steps."][data-word$=".centre_back"]')
    expect(levelled).to_be_attached()
    expect(levelled).to_contain_text("cm")
