"""A fitting at the bench: a day begun, what is seen touched and tried on the drawn dress, taken, undone; the block."""

import re

from PIL import Image
from playwright.sync_api import expect

from server import get, wait_until
from workbench import numbered, open_commission, open_stage


def at_the_fitting(page, studio, title):
    open_commission(page, studio, title)
    page.keyboard.press("7")
    log = page.get_by_role("region", name="Fittings", exact=True)
    expect(log).to_be_visible()
    return log


def test_what_is_seen_is_touched_tried_taken_and_undone(page, studio):
    log = at_the_fitting(page, studio, "Sundress")
    log.get_by_role("button", name="A fitting today").click()
    log.locator("#seen").select_option("neck_stands_off")
    expect(log).to_contain_text("Likely: the chest is hollower")
    line = page.get_by_test_id("dress").locator('[data-line^="bodice front/"]').first
    line.dispatch_event("pointermove")
    piece, edge = line.get_attribute("data-line").split("/")
    expect(log).to_contain_text(f"Where: {piece}, {edge}")
    log.get_by_label("How much").fill("8mm")
    expect(log).to_contain_text("0.8 cm off its length, each half")
    number = numbered(studio, "Sundress")
    before = get(studio, f"/api/commissions/{number}")["recipe"]
    log.get_by_role("button", name="Look").first.click()
    expect(log.get_by_role("status")).to_contain_text("nothing is kept until it is taken")
    assert get(studio, f"/api/commissions/{number}")["recipe"] == before
    log.get_by_label("In her own words").fill("It gapes when I bend.")
    log.get_by_role("button", name="Take it").first.click()
    expect(log).to_contain_text("“It gapes when I bend.”")
    expect(log).to_contain_text(re.compile("Taken: pinch a wedge out of the front neck"))
    wait_until(lambda: len(get(studio, f"/api/commissions/{number}")["recipe"]["steps"]) == len(before["steps"]) + 1)
    page.get_by_role("button", name="Undo").click()
    wait_until(lambda: get(studio, f"/api/commissions/{number}")["recipe"]["steps"] == before["steps"])
    expect(log).to_contain_text("Taken:")  # what was seen stays in the log


def test_what_is_seen_on_one_side_is_corrected_there(page, studio):
    log = at_the_fitting(page, studio, "Midsummer dance dress")
    log.get_by_role("button", name="A fitting today").click()
    log.locator("#seen").select_option("drag_from_tip")
    log.locator("#seen-side").select_option("left")
    log.get_by_role("button", name="Look").first.click()
    expect(log.get_by_role("status")).to_contain_text("nothing is kept until it is taken")
    log.get_by_role("button", name="Take it").first.click()
    expect(log).to_contain_text(re.compile("Taken: raise the shoulder tip"))
    number = numbered(studio, "Midsummer dance dress")
    wait_until(lambda: get(studio, f"/api/commissions/{number}")["recipe"]["steps"][-1:] != [])
    assert get(studio, f"/api/commissions/{number}")["recipe"]["steps"][-1]["side"] == "left"


def test_a_note_that_cannot_be_sent_stays_where_it_was_typed_and_nothing_is_taken(page, studio):
    log = at_the_fitting(page, studio, "Sundress")
    log.get_by_role("button", name="A fitting today").click()
    log.locator("#seen").select_option("hem_low")
    log.get_by_label("In her own words").fill("By a hand.")
    number = numbered(studio, "Sundress")
    before = get(studio, f"/api/commissions/{number}")["recipe"]
    page.route("**/api/fittings/*/notes*", lambda route: route.abort())
    log.get_by_role("button", name="Take it").click()
    expect(log.get_by_role("alert")).to_be_visible()
    expect(log.get_by_label("In her own words")).to_have_value("By a hand.")
    assert get(studio, f"/api/commissions/{number}")["recipe"] == before
    page.unroute("**/api/fittings/*/notes*")
    log.get_by_role("button", name="Take it").click()
    expect(log).to_contain_text("“By a hand.”")
    wait_until(lambda: get(studio, f"/api/commissions/{number}")["recipe"]["lower"] != before["lower"])


def test_three_visits_of_the_demo_propose_a_change_of_the_block(page, studio):
    log = at_the_fitting(page, studio, "Harbour master's suit dress")
    expect(log.get_by_role("article")).to_have_count(3)
    proposed = log.get_by_role("region", name="For her block")
    expect(proposed).to_contain_text("the neckline stands off")
    proposed.get_by_role("button", name="Put it into her block").click()
    expect(proposed).to_have_count(0)
    expect(log).to_contain_text("In her block already")
    kept = page.url
    page.get_by_role("link", name="Bettany Oxley").click()
    expect(page.get_by_role("heading", name=re.compile("In her block already"))).to_be_visible()
    page.get_by_role("button", name="Take it out again").click()
    expect(page.get_by_role("heading", name=re.compile("In her block already"))).to_have_count(0)
    page.goto(kept)
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    page.keyboard.press("7")
    log.get_by_label("What the client wishes").first.fill("A shade longer, for the boots.")
    log.get_by_role("button", name="Keep the wishes").first.click()
    page.reload()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    page.keyboard.press("7")
    expect(log.get_by_label("What the client wishes").first).to_have_value("A shade longer, for the boots.")


def test_a_photograph_is_laid_in_looked_at_and_taken_away(page, studio, tmp_path):
    log = at_the_fitting(page, studio, "Harbour master's suit dress")
    newest = log.get_by_role("article").first
    taken = tmp_path / "hem.jpg"
    Image.new("RGB", (900, 1200), "#446688").save(taken)
    newest.locator("input[type=file]").set_input_files(taken)
    picture = newest.get_by_role("img", name=re.compile("Photograph 1 of"))
    expect(picture).to_be_visible()
    page.wait_for_function("image => image.naturalWidth === 900", arg=picture.element_handle())
    wrong = tmp_path / "hem.txt"
    wrong.write_text("a drawing")
    newest.locator("input[type=file]").set_input_files(wrong)
    expect(newest.get_by_role("alert")).to_contain_text("hem.txt is not a photograph I can read")
    newest.get_by_role("button", name="Take photograph 1 away").click()
    expect(picture).to_have_count(0)


def test_what_is_in_her_block_is_done_to_a_dress_that_was_not_begun_with_it(page, studio):
    number = numbered(studio, "Harbour master's suit dress")
    person = get(studio, f"/api/commissions/{number}")["person"]["id"]
    put = page.request.post(f"{studio.url}/api/people/{person}/block", data={"seen": "neck_stands_off"})
    assert put.status == 204
    other = numbered(studio, "Peplum jacket-blouse")
    before = get(studio, f"/api/commissions/{other}")["recipe"]["steps"]
    open_commission(page, studio, "Peplum jacket-blouse")
    open_stage(page, "bodice")
    hers = page.get_by_role("region", name="In her block:")
    expect(hers).to_contain_text("pinch a wedge out of the front neck")
    hers.get_by_role("button", name="Do it to this dress").click()
    wait_until(lambda: len(get(studio, f"/api/commissions/{other}")["recipe"]["steps"]) == len(before) + 1)
    hers.get_by_role("button", name="Do it to this dress").click()
    expect(hers.get_by_role("alert")).to_contain_text("has all of it already")
    page.get_by_role("button", name="Undo").click()
    wait_until(lambda: get(studio, f"/api/commissions/{other}")["recipe"]["steps"] == before)


def test_what_was_tried_for_something_else_cannot_be_taken(page, studio):
    """While the tries of what is chosen now are on their way, those of before stand there, not to be pressed."""
    log = at_the_fitting(page, studio, "Sundress")
    log.get_by_role("button", name="A fitting today").click()
    log.locator("#seen").select_option("neck_stands_off")
    expect(log.get_by_role("button", name="Take it").first).to_be_enabled()
    held = []
    page.route("**/api/fittings/tries*", lambda route: held.append(route))
    log.get_by_label("How much").fill("9mm")
    expect(log.get_by_role("button", name="Take it").first).to_be_disabled()
    expect(log.get_by_role("button", name="Look").first).to_be_disabled()
    wait_until(lambda: held)
    page.unroute("**/api/fittings/tries*")  # and what was held goes on its way
    expect(log).to_contain_text("0.9 cm off its length")
    expect(log.get_by_role("button", name="Take it").first).to_be_enabled()
