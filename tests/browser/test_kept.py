"""What is typed stays, and stays the same: units, unreadable words, two windows, a stopped server, drafts left."""

import json
import re

import pytest
from playwright.sync_api import expect

from server import get, wait_until
from workbench import numbered, open_commission, open_stage, shown, type_word, word

DRESS = "Ball gown"


def kept(studio, title=DRESS):
    return get(studio, f"/api/commissions/{numbered(studio, title)}")


def length_is(studio, mm, title=DRESS):
    return lambda: abs(kept(studio, title)["recipe"]["lower"]["length"] - mm) < 1e-6


def switch_to(page, unit):
    page.get_by_role("radiogroup", name="Unit").get_by_role("radio", name=unit, exact=True).click()


def saved(page):
    expect(page.get_by_test_id("saved")).to_have_text(re.compile(r"^saved \d\d:\d\d$"))


def test_the_unit_switch_changes_what_is_shown_and_nothing_else(page, studio):
    open_commission(page, studio, DRESS)
    switch_to(page, "in")
    type_word(page, "lower.length", "24")
    page.keyboard.press("Enter")
    expect(word(page, "lower.length")).to_have_text("24 in")
    switch_to(page, "cm")
    expect(word(page, "lower.length")).to_have_text("61.0 cm")
    wait_until(length_is(studio, 609.6))
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("button", name="Redo").click()
    expect(word(page, "lower.length")).to_have_text("61.0 cm")
    saved(page)
    page.reload()
    expect(word(page, "lower.length")).to_have_text("61.0 cm")
    assert kept(studio)["recipe"]["lower"]["length"] == pytest.approx(609.6)


def test_a_bare_number_typed_while_the_server_is_away_keeps_its_unit(page, studio):
    open_commission(page, studio, DRESS)
    switch_to(page, "in")
    saved(page)
    page.context.set_offline(True)
    type_word(page, "lower.length", "24")
    page.keyboard.press("Enter")
    switch_to(page, "cm")
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("button", name="Redo").click()
    page.context.set_offline(False)
    wait_until(length_is(studio, 609.6))
    expect(word(page, "lower.length")).to_have_text("61.0 cm")


def test_refused_text_stays_and_is_read_in_its_own_unit_once_it_can_be(page, studio):
    open_commission(page, studio, DRESS)
    switch_to(page, "in")
    type_word(page, "lower.length", "400")
    page.keyboard.press("Enter")
    expect(word(page, "lower.length")).to_contain_text("400")
    switch_to(page, "cm")
    expect(word(page, "lower.length")).to_contain_text("400 ")
    expect(word(page, "lower.length")).to_contain_text("out of range")
    assert kept(studio)["recipe"]["lower"]["length"] == 1080


def test_one_unreadable_word_locks_nothing_and_is_led_to(page, studio):
    open_commission(page, studio, DRESS)
    type_word(page, "lower.length", "sixty")
    page.keyboard.press("Enter")
    type_word(page, "lower.hem", "2")
    page.keyboard.press("Enter")
    wait_until(lambda: kept(studio)["recipe"]["lower"]["hem"] == 20)
    expect(page.get_by_test_id("saved")).to_contain_text("Saved without a word that cannot be read")
    page.reload()
    expect(word(page, "lower.hem")).to_have_text("2.0 cm")
    expect(word(page, "lower.length")).to_contain_text("sixty")
    page.get_by_role("button", name="Show it").click()
    expect(word(page, "lower.length")).to_be_focused()
    type_word(page, "lower.length", "60")
    page.keyboard.press("Enter")
    saved(page)
    wait_until(length_is(studio, 600))


def test_an_unreadable_measure_is_led_to_on_its_table(page, studio):
    open_commission(page, studio, DRESS)
    open_stage(page, "figure")
    page.get_by_role("button", name="Measure", exact=True).click()
    page.get_by_role("tab", name="Legs").click()
    page.locator('[data-measure="measures.thigh_girth"]').fill("narrow")
    page.get_by_role("button", name="Back to the sheet").click()
    page.get_by_role("button", name="Show it").click()
    page.get_by_role("tab", name="Legs").click()
    expect(page.locator('[data-measure="measures.thigh_girth"]')).to_have_value("narrow")


def test_no_file_of_an_older_state_without_saying_so(page, studio):
    open_commission(page, studio, DRESS)
    open_stage(page, "pattern")
    link = page.get_by_role("link", name="Recipe, to bring back later")
    expect(link).to_be_visible()
    type_word(page, "lower.length", "sixty")
    page.keyboard.press("Enter")
    open_stage(page, "pattern")
    expect(link).not_to_be_visible()
    expect(page.get_by_text("Not everything you typed is saved.")).to_be_visible()
    page.get_by_role("button", name="Files of version 1").click()
    expect(link).to_be_visible()
    with page.expect_download() as download:
        link.click()
    assert json.loads(download.value.path().read_text())["lower"]["length"] == 1080
    type_word(page, "lower.length", "60")
    page.keyboard.press("Enter")
    saved(page)
    open_stage(page, "pattern")
    with page.expect_download() as download:
        link.click()
    assert json.loads(download.value.path().read_text())["lower"]["length"] == 600


def another_window(page, studio, title=DRESS):
    other = page.context.new_page()
    open_commission(other, studio, title)
    return other


@pytest.mark.parametrize("choice", ["mine", "theirs"])
def test_two_windows_are_told_and_both_texts_are_kept(page, studio, choice):
    open_commission(page, studio, DRESS)
    other = another_window(page, studio)
    type_word(other, "lower.length", "90")
    saved(other)
    wait_until(length_is(studio, 900))
    type_word(page, "lower.hem", "3")
    page.keyboard.press("Enter")
    notice = page.get_by_role("region", name=re.compile("Another window saved version 2"))
    expect(notice.get_by_test_id("differences")).to_contain_text("108.0 cm")
    expect(notice.get_by_test_id("differences")).to_contain_text("90.0 cm")
    expect(page.get_by_test_id("saved")).to_contain_text("Not saved: another window has saved since.")
    assert kept(studio)["recipe"]["lower"]["hem"] == 15, "nothing was written over"
    if choice == "mine":
        notice.get_by_role("button", name="Keep mine as the newest").click()
        saved(page)
        assert (kept(studio)["version"], kept(studio)["recipe"]["lower"]["hem"]) == (3, 30)
        earlier = get(studio, f"/api/commissions/{numbered(studio, DRESS)}/versions/2")
        assert earlier["lower"]["length"] == 900
    else:
        notice.get_by_role("button", name="Take theirs").click()
        expect(word(page, "lower.length")).to_have_text("90.0 cm")
        saved(page)
        page.get_by_role("button", name="Undo").click()
        expect(word(page, "lower.hem")).to_have_text("3.0 cm")
    expect(notice).to_have_count(0)


def test_earlier_versions_are_seen_compared_and_brought_back(page, studio):
    open_commission(page, studio, DRESS)
    type_word(page, "lower.length", "90")
    page.keyboard.press("Enter")
    wait_until(length_is(studio, 900))
    saved(page)
    page.keyboard.press("v")
    panel = page.get_by_role("dialog", name="Earlier versions")
    first = panel.locator('[data-version="1"]')
    first.get_by_role("button", name="Compare with now").click()
    expect(first.get_by_test_id("differences")).to_contain_text("90.0 cm")
    first.get_by_role("button", name="Look at it").click()
    looking = page.get_by_role("region", name="You are looking at version 1.")
    expect(looking).to_be_visible()
    expect(word(page, "lower.length")).to_have_text("108.0 cm")
    looking.get_by_role("button", name="Back to now").click()
    expect(word(page, "lower.length")).to_have_text("90.0 cm")
    page.keyboard.press("v")
    first.get_by_role("button", name="Bring it back").click()
    expect(word(page, "lower.length")).to_have_text("108.0 cm")
    wait_until(length_is(studio, 1080))
    assert kept(studio)["version"] == 3
    page.get_by_role("button", name="Undo").click()
    expect(word(page, "lower.length")).to_have_text("90.0 cm")


def test_an_edit_made_while_the_server_is_stopped_is_sent_when_it_is_back(page, studio):
    open_commission(page, studio, DRESS)
    saved(page)
    studio.stop()
    type_word(page, "lower.length", "95")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Not saved yet.")).to_be_visible()
    type_word(page, "lower.hem", "2")
    page.keyboard.press("Enter")
    studio.start()
    saved(page)
    recipe = kept(studio)["recipe"]
    assert (recipe["lower"]["length"], recipe["lower"]["hem"]) == (950, 20)


def test_a_fault_never_reads_saved_and_what_was_typed_is_sent_on(page, studio):
    """The program is made to stumble at drawing: what is typed is kept all the same, and said not to be drawn."""
    open_commission(page, studio, DRESS)
    saved(page)
    fault = {"title": "A fault of the program", "status": 500, "detail": "A fault of the program.", "errors": []}
    page.route(
        "**/api/bench*",
        lambda route: route.fulfill(status=500, content_type="application/problem+json", body=json.dumps(fault)),
    )
    type_word(page, "lower.length", "95")
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="What you see is not drawn from what you typed.")).to_be_visible()
    wait_until(length_is(studio, 950))
    with page.expect_response(re.compile(r"/versions\?")) as answer:  # answered while the page waits, not the test
        type_word(page, "lower.hem", "2")
        page.keyboard.press("Enter")
    assert answer.value.status == 201
    assert kept(studio)["recipe"]["lower"]["hem"] == 20
    page.unroute("**/api/bench*")
    type_word(page, "lower.hem", "2.5")
    page.keyboard.press("Enter")
    expect(word(page, "lower.length")).to_have_text("95.0 cm")
    expect(page.get_by_role("region", name="What you see is not drawn from what you typed.")).to_have_count(0)
    saved(page)


def test_while_nothing_can_be_kept_nothing_reads_saved(page, studio):
    open_commission(page, studio, DRESS)
    full = {
        "title": "Not kept",
        "status": 503,
        "detail": "The disk is full, so nothing more can be kept.",
        "errors": [],
    }
    page.route(
        "**/versions*",
        lambda route: route.fulfill(status=503, content_type="application/problem+json", body=json.dumps(full)),
    )
    type_word(page, "lower.length", "95")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("saved")).to_contain_text("The disk is full")
    expect(page.get_by_test_id("saved")).not_to_contain_text("saved ")
    page.reload()
    expect(word(page, "lower.length")).to_have_text("95.0 cm")
    page.unroute("**/versions*")
    wait_until(length_is(studio, 950))
    saved(page)


def leave_a_draft(page, studio, text):
    page.evaluate(
        "([key, text]) => localStorage.setItem(key, text)", [f"hem.work.{numbered(studio, DRESS)}.gone", text]
    )


def test_a_draft_left_behind_is_offered_beside_the_newer_state_never_imposed(page, studio):
    page.goto(studio.url)
    opened = kept(studio)
    draft = {
        "from": 0, "at": "2026-06-01T10:00:00Z", "recipe": {**opened["recipe"], "name": "Older gown"},
        "typed": [{"path": "lower.length", "value": "30", "unit": "in"}],
    }  # fmt: skip
    leave_a_draft(page, studio, json.dumps(draft))
    open_commission(page, studio, DRESS)
    offer = page.get_by_role("region", name=re.compile("A draft of .* was left in this browser"))
    expect(offer.get_by_test_id("differences")).to_contain_text("76.2 cm")
    expect(word(page, "lower.length")).to_have_text("108.0 cm")
    page.reload()
    expect(offer).to_be_visible()
    offer.get_by_role("button", name="Use the draft").click()
    expect(word(page, "lower.length")).to_have_text("76.2 cm")
    wait_until(length_is(studio, 762))
    page.get_by_role("button", name="Undo").click()
    expect(word(page, "lower.length")).to_have_text("108.0 cm")


def test_a_draft_put_aside_is_not_offered_again(page, studio):
    page.goto(studio.url)
    recipe = {**kept(studio)["recipe"], "remarks": "older"}
    leave_a_draft(page, studio, json.dumps({"from": 0, "at": "2026-06-01T10:00:00Z", "recipe": recipe, "typed": []}))
    open_commission(page, studio, DRESS)
    page.get_by_role("button", name="Put it aside").click()
    page.reload()
    expect(word(page, "lower.length")).to_be_visible()
    expect(page.get_by_role("region", name=re.compile("was left in this browser"))).to_have_count(0)
    aside = page.evaluate("(key) => localStorage.getItem(key)", f"hem.aside.{numbered(studio, DRESS)}")
    assert "older" in aside


@pytest.mark.parametrize("text", ["{not json", '{"from": 1}', '{"from": 1, "at": "x", "recipe": {}, "typed": [{}]}'])
def test_a_damaged_draft_is_put_aside_and_said(page, studio, text):
    page.goto(studio.url)
    leave_a_draft(page, studio, text)
    open_commission(page, studio, DRESS)
    expect(page.get_by_text("A draft in this browser was damaged.")).to_be_visible()
    expect(word(page, "lower.length")).to_have_text("108.0 cm")
    assert page.evaluate("(key) => localStorage.getItem(key)", f"hem.aside.{numbered(studio, DRESS)}") == text


def test_opening_a_commission_saves_nothing(page, studio):
    open_commission(page, studio, DRESS)
    saved(page)
    page.get_by_role("link", name="Desk").click()
    open_commission(page, studio, DRESS)
    saved(page)
    assert kept(studio)["version"] == 1


def test_eight_quick_presses_are_eight_steps(page, studio):
    open_commission(page, studio, DRESS)
    shown(page, "lower.length").click()
    for _ in range(8):
        page.keyboard.press("ArrowUp", delay=0)
    page.keyboard.press("Enter")
    expect(word(page, "lower.length")).to_have_text("108.8 cm")
    shown(page, "lower.sweep").click()
    for _ in range(8):
        page.keyboard.press("ArrowDown", delay=0)
    wait_until(lambda: kept(studio)["recipe"]["lower"]["sweep"] == 352)


def test_a_double_click_begins_one_dress(page, studio):
    page.goto(studio.url)
    before = get(studio, "/api/desk")["total"]
    page.get_by_role("button", name="New dress").click()
    page.get_by_label("Name of the dress").fill("Gala dress")
    page.get_by_label("Whose it is").fill("Isolde Marrin")
    page.get_by_role("button", name="Begin").dblclick()
    expect(page.get_by_role("heading", name="Gala dress")).to_be_visible()
    assert get(studio, "/api/desk")["total"] == before + 1


def test_a_new_dress_invents_nothing_and_says_what_is_missing(page, studio):
    page.goto(studio.url)
    page.get_by_role("button", name="New dress").click()
    page.get_by_label("Name of the dress").fill("Plain dress")
    page.get_by_label("Whose it is").fill("Somebody New")
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_test_id("join-sentence")).to_contain_text("Nothing is drawn yet")
    expect(page.get_by_label("Bodice by", exact=True)).to_have_value("measured")
    expect(word(page, "bodice.front_side")).to_have_text("not measured yet")
    for path, typed in (
        ("bodice.front.centre_to_dart", "9.2"), ("bodice.front.dart_to_side", "9.4"),
        ("bodice.back.centre_to_dart", "8.6"), ("bodice.back.dart_to_side", "9"), ("bodice.front_side", "20"),
    ):  # fmt: skip
        type_word(page, path, typed)
        page.keyboard.press("Enter")
    expect(page.locator('[data-finding="edge-not-measured"]')).to_contain_text("back side seam")
    type_word(page, "bodice.back_side", "20")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("join-sentence")).to_have_text("The waist meets.")


def test_measures_typed_follow_the_person_to_her_next_dress(page, studio):
    open_commission(page, studio, DRESS)
    person = kept(studio)["person"]["name"]
    type_word(page, "figure.measures.waist_girth", "73")
    page.keyboard.press("Enter")
    saved(page)
    page.get_by_role("link", name="Desk").click()
    page.get_by_role("button", name="New dress").click()
    page.get_by_label("Name of the dress").fill("Next dress")
    page.get_by_label("Whose it is").fill(person)
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("heading", name="Next dress")).to_be_visible()
    expect(shown(page, "figure.measures.waist_girth")).to_have_text("73.0 cm")


def test_a_part_that_cannot_be_shown_leaves_the_rest_and_says_what_can_be_done(page, studio):
    """The sheet is given something it cannot draw; the sentences beside it go on working."""

    def spoil(route):
        answer = route.fetch()
        made = answer.json()
        made["screen"]["sheet"]["pieces"] = [{"name": "spoiled"}]
        route.fulfill(response=answer, json=made)

    page.route("**/api/bench*", spoil)
    page.goto(studio.url)
    page.get_by_role("heading", name=DRESS).click()
    expect(page.get_by_role("heading", name="Something here could not be shown.").first).to_be_visible()
    expect(word(page, "lower.length")).to_be_visible()
    page.unroute("**/api/bench*")
    page.get_by_role("button", name="Load the page again").first.click()
    expect(page.get_by_test_id("sheet")).to_be_visible()


def test_a_commission_that_cannot_be_read_opens_and_can_be_taken_out(page, studio):
    from sqlalchemy import text

    from gentle_hem.store import Store

    number = numbered(studio, DRESS)
    store = Store(studio.folder)
    with store.engine.begin() as connection:
        connection.execute(
            text("UPDATE recipe_version SET recipe = :r WHERE commission_id = :n"),
            {"r": '{"name": "Ball gown", "lower": {"kind": "cloud"}}', "n": number},
        )
        connection.execute(text("DELETE FROM slip WHERE commission_id = :n"), {"n": number})
    store.engine.dispose()
    page.goto(f"{studio.url}/commission/{number}")
    expect(page.get_by_role("region", name="This recipe cannot be read.")).to_contain_text("cloud")
    with page.expect_download() as download:
        page.get_by_role("link", name="Take the recipe out as it is kept").click()
    assert json.loads(download.value.path().read_text())["lower"]["kind"] == "cloud"
    page.get_by_role("link", name="Desk").click()
    expect(page.get_by_role("heading", name="Harbour dance dress")).to_be_visible()


def test_sums_keep_their_unit_when_another_is_chosen(page, studio):
    page.goto(studio.url)
    expect(page.get_by_role("heading", name=DRESS)).to_be_visible()
    page.keyboard.press("s")
    bench = page.get_by_role("dialog")
    bench.get_by_role("radio", name="in", exact=True).click()
    bench.get_by_label("seam it is sewn to").fill("31 1/4")
    bench.get_by_label("finished length").fill("22")
    expect(bench.get_by_test_id("sum-answer")).to_contain_text("5 in")
    bench.get_by_role("radio", name="cm", exact=True).click()
    expect(bench.get_by_label("seam it is sewn to")).to_have_value("31 1/4 in")
    expect(bench.get_by_test_id("sum-answer")).to_contain_text("12.6 cm")


def test_the_simulated_tape_marks_its_readings(page, studio):
    """Only the demo has the tape; over the maker's own records there is none to press."""
    open_commission(page, studio, DRESS)
    open_stage(page, "figure")
    page.get_by_role("button", name="Measure", exact=True).click()
    expect(page.get_by_role("button", name="Keep as a dated set")).to_be_visible()
    expect(page.get_by_role("button", name="Press the tape")).to_have_count(0)
