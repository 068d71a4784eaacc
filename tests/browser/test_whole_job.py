"""The whole job, by keyboard and mouse, on the demo studio's records."""

import io
import re

import ezdxf
import pytest
from playwright.sync_api import expect

from server import get, wait_until
from workbench import STAGES, numbered, open_commission, open_stage, shown, type_word, word


def tie(page, name):
    return page.locator(f'[data-tie="{name}"]')


def saved(page):
    expect(page.get_by_test_id("saved")).to_have_text(re.compile(r"^saved \d\d:\d\d$"))


def test_from_a_gap_to_files_and_back_after_a_restart(page, studio):
    open_commission(page, studio, "Harbour dance dress")
    sentence = page.get_by_test_id("join-sentence")
    expect(sentence).to_have_text("The skirt is 5.2 cm longer than the bodice.")
    expect(tie(page, "side seam")).to_have_attribute("data-state", "off")

    # change the sweep by mouse and the length by keyboard
    shown(page, "lower.sweep").click()
    page.get_by_role("radio", name="three-quarter circle").click()
    page.keyboard.press("Escape")
    expect(word(page, "lower.sweep")).to_have_text("three-quarter circle")
    shown(page, "lower.length").focus()
    page.keyboard.press("Enter")
    page.keyboard.type("71,5")
    page.keyboard.press("Shift+ArrowUp")
    page.keyboard.press("Enter")
    expect(word(page, "lower.length")).to_have_text("72.5 cm")
    expect(page.locator('[data-edge="skirt front/side"]')).to_have_attribute("aria-label", re.compile("72.5 cm"))

    # close the gap by a remedy on the ribbon
    page.locator('[data-remedy="new-radius"]').click()
    expect(sentence).to_have_text("The waist meets.")
    expect(tie(page, "side seam")).to_have_attribute("data-state", "meets")

    # ask why
    page.get_by_test_id("ribbon").get_by_role("button", name="why?").first.click()
    expect(page.get_by_test_id("working")).to_contain_text("2 × (24.6 cm + 23.4 cm) = 96 cm")
    page.get_by_role("button", name="seam radius", exact=False).first.click()
    expect(page.get_by_test_id("working")).to_contain_text("96 cm ÷ 4.7124 = 20.372, on the tape 20.4 cm")

    # switch units and back without changing a stored number
    number = numbered(studio, "Harbour dance dress")
    before = get(studio, f"/api/commissions/{number}")["recipe"]["bodice"]
    page.keyboard.press("Escape")
    page.keyboard.press("u")
    expect(word(page, "lower.length")).to_have_text("28 1/2 in")
    page.keyboard.press("u")
    expect(word(page, "lower.length")).to_have_text("72.5 cm")

    # export what is on screen
    saved(page)
    wait_until(lambda: get(studio, f"/api/commissions/{number}")["recipe"]["lower"]["length"] == 725)
    with page.expect_download() as download:
        open_stage(page, "pattern")
        page.get_by_role("link", name="Pieces as DXF").click()
    drawing = ezdxf.read(io.StringIO(download.value.path().read_text()))
    assert "skirt front" in drawing.blocks

    # it is all there after a restart
    studio.restart()
    open_commission(page, studio, "Harbour dance dress")
    expect(word(page, "lower.length")).to_have_text("72.5 cm")
    expect(sentence).to_have_text("The waist meets.")
    assert get(studio, f"/api/commissions/{number}")["recipe"]["bodice"] == before


def test_undo_and_redo(page, studio):
    open_commission(page, studio, "Ball gown")
    type_word(page, "lower.length", "90")
    page.keyboard.press("Enter")
    expect(word(page, "lower.length")).to_have_text("90.0 cm")
    page.keyboard.press("z")
    expect(word(page, "lower.length")).to_have_text("108.0 cm")
    page.keyboard.press("Shift+Z")
    expect(word(page, "lower.length")).to_have_text("90.0 cm")


BAD = [
    ("lower.length", "long", '"long" cannot be read'),
    ("lower.length", "0", "out of range"),
    ("lower.length", "-5", "out of range"),
    ("lower.length", "99999999", "50 m"),
    ("lower.sweep", "0", "0 degrees of sweep is out of range"),
    ("lower.sweep", "4000", "4000 degrees of sweep is out of range"),
    ("lower.hem", "1/0", "divides by nothing"),
    ("bodice.front.dart_width", "40", "out of range"),
    ("allowances.waist", "abc", "cannot be read"),
    ("figure.measures.hip_girth", "0", "more than nothing"),
]


def test_bad_input_is_answered_beside_the_word_and_keeps_what_was_typed(page, studio):
    open_commission(page, studio, "Ball gown")
    kept = get(studio, f"/api/commissions/{numbered(studio, 'Ball gown')}")["recipe"]
    for path, typed, said in BAD:
        field = type_word(page, path, typed)
        expect(page.get_by_role("dialog").get_by_role("alert")).to_contain_text(said)
        expect(field).to_have_value(typed)
        page.keyboard.press("Escape")
        expect(word(page, path)).to_contain_text(typed)
        expect(page.get_by_text("Saved without a word that cannot be read.")).to_be_visible()
    page.reload()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    for path, (typed, said) in {path: (typed, said) for path, typed, said in BAD}.items():
        stage = page.locator(f"#stage-{STAGES.get(path.split('.')[0], 'pattern')}")
        expect(stage).to_contain_text(said if stage.locator("[aria-expanded=false]").count() else typed)
        expect(shown(page, path)).to_contain_text(typed)
    assert get(studio, f"/api/commissions/{numbered(studio, 'Ball gown')}")["recipe"] == kept


def test_a_pair_of_lengths_that_makes_no_seam_is_said(page, studio):
    open_commission(page, studio, "Ball gown")
    type_word(page, "bodice.front.centre_to_dart", "0")
    page.keyboard.press("Enter")
    type_word(page, "bodice.front.dart_to_side", "0")
    expect(page.get_by_role("alert").filter(has_text="shorter than 1 cm")).to_be_visible()


def test_a_lost_connection_keeps_the_edits_and_saves_them_later(page, studio):
    open_commission(page, studio, "Ball gown")
    page.context.set_offline(True)
    type_word(page, "lower.length", "95")
    expect(page.get_by_text("Not saved yet.")).to_be_visible()
    page.context.set_offline(False)
    page.reload()
    expect(word(page, "lower.length")).to_have_text("95.0 cm")
    wait_until(
        lambda: get(studio, f"/api/commissions/{numbered(studio, 'Ball gown')}")["recipe"]["lower"]["length"] == 950
    )


def test_touching_an_edge_lights_it_with_its_mate(page, studio):
    open_commission(page, studio, "Ball gown")
    page.locator('[data-edge="skirt front/side"]').focus()
    expect(page.get_by_test_id("edge-words")).to_contain_text("sewn to skirt back side: meets, 0.0 cm")
    lit = page.get_by_test_id("sheet").locator("[data-lit]")
    assert lit.count() == 2


def test_the_sheet_zooms_by_keys_and_wheel_and_comes_back(page, studio):
    open_commission(page, studio, "Ball gown")
    sheet = page.get_by_test_id("sheet")
    whole = sheet.get_attribute("viewBox")
    page.get_by_role("button", name="Larger").click()
    assert sheet.get_attribute("viewBox") != whole
    page.get_by_label("Paper scale").select_option("1")
    width = float(sheet.get_attribute("viewBox").split()[2])
    assert width == pytest.approx(float(sheet.get_attribute("width")) * 25.4 / 96, rel=0.01)
    page.get_by_role("button", name="See everything").click()
    expect(sheet).to_have_attribute("viewBox", whole)


def test_sums_bench_from_anywhere_by_one_key(page, studio):
    page.goto(studio.url)
    expect(page.get_by_role("heading", name="Desk")).to_be_visible()
    page.keyboard.press("s")
    bench = page.get_by_role("dialog")
    bench.get_by_role("radio", name="in", exact=True).click()
    for name, fields, answer in [
        ("Skirt length", {"full length": "43", "waist length": "15 1/2"}, "27 1/2 in"),
        ("Circle and flare", {"seam it is sewn to": "34", "finished length": "7"}, "5 3/8 in"),
        (
            "Sweep from the hem",
            {"seam it is sewn to": "28", "finished length": "24", "wanted hem sweep": "100"},
            "171.9°",
        ),
        ("Gathers", {"seam it is gathered to": "28", "fullness": "2.5"}, "70 in"),
        ("Share into darts", {"lower edge": "10 1/4", "bodice edge": "8 1/2"}, "7/8 in"),
    ]:
        bench.get_by_role("radio", name=name, exact=True).click()
        for label, typed in fields.items():
            bench.get_by_label(label, exact=True).fill(typed)
        expect(bench.get_by_test_id("sum-answer")).to_contain_text(answer)
    bench.get_by_label("lower edge").fill("wide")
    expect(bench.get_by_role("alert")).to_contain_text('"wide"')
    page.keyboard.press("Escape")
    expect(bench).not_to_be_visible()


def test_a_new_dress_is_begun_by_keyboard_alone(page, studio):
    page.goto(studio.url)
    expect(page.get_by_role("heading", name="Ball gown")).to_be_visible()
    page.keyboard.press("n")
    page.get_by_label("Name of the dress").fill("Finale")
    page.keyboard.press("Tab")
    page.keyboard.type("Somebody New")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Finale")).to_be_visible()
    expect(page.get_by_test_id("join-sentence")).to_contain_text("there is no bodice")


def test_shortcuts_can_be_switched_off(page, studio):
    page.goto(studio.url)
    expect(page.get_by_role("heading", name="Desk")).to_be_visible()
    page.keyboard.press("?")
    page.get_by_label("Single-key shortcuts are on").uncheck()
    page.keyboard.press("Escape")
    page.keyboard.press("s")
    expect(page.get_by_role("dialog")).to_have_count(0)
