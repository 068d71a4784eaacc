"""Cloth, from the shelf to the plotter: a cloth too narrow, a way out, a search watched and stopped, pins, paper."""

import io
import re

import httpx
import pdfplumber
from playwright.sync_api import expect

from server import get, wait_until
from workbench import numbered, open_commission, type_word


def on_the_table(page):
    page.keyboard.press("5")
    page.get_by_role("button", name="How much cloth").click()
    return page.get_by_role("region", name="Cloth", exact=True)


def test_how_much_cloth_is_said_and_drawn_and_moves_with_its_width(page, studio):
    """Bone calico has 1 cm of selvedge on either side."""
    open_commission(page, studio, "Fisher chorus dress")
    type_word(page, "cloths.outer.width", "160")
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    cloth = on_the_table(page).get_by_role("article", name="The pieces on the cloth")
    expect(cloth.get_by_test_id("to-buy")).to_contain_text("of a cloth with 158.0 cm to use")
    expect(cloth.get_by_text("The hem ruffle is")).to_contain_text("it is cut in 3 widths of the cloth and joined")
    wide = cloth.get_by_test_id("to-buy").inner_text()
    number = numbered(studio, "Fisher chorus dress")
    wait_until(lambda: get(studio, f"/api/commissions/{number}")["recipe"]["cloths"]["outer"]["width"] == 1600)
    with httpx.Client(base_url=studio.url, headers={"Origin": studio.url}) as client:
        recipe = get(studio, f"/api/commissions/{number}")["recipe"]
        laid = client.post("/api/lays?unit=cm", json={"recipe": recipe}).json()[0]
    assert wide.startswith(laid["buy"])
    expect(cloth.locator("[data-laid]")).to_have_count(len(laid["placed"]))
    type_word(page, "cloths.outer.width", "110")
    page.keyboard.press("Enter")
    expect(cloth.get_by_test_id("to-buy")).to_contain_text("of a cloth with 108.0 cm to use")
    metres = [float(re.match(r"[\d.]+", said)[0]) for said in (wide, cloth.get_by_test_id("to-buy").inner_text())]
    assert metres[1] > metres[0] * 1.2


def test_a_gown_on_a_cloth_too_narrow_finds_a_way_is_searched_pinned_and_plotted_through_a_paper_out(page, demo):
    open_commission(page, demo, "Ball gown")
    cloth = on_the_table(page).get_by_role("article", name="The pieces on the cloth")
    expect(cloth.get_by_role("alert").first).to_contain_text("does not go on this cloth")

    ways = cloth.get_by_role("region", name="Ways to cut it from this cloth")
    four = ways.get_by_role("button", name=re.compile("in 4 pieces"))
    price = re.search(r"([\d.]+) m, ([\d.]+) to pay", four.inner_text())
    assert four.locator("svg path").count() > 5  # it is drawn as it would be
    four.click()
    expect(cloth.get_by_role("alert")).to_have_count(0)
    expect(cloth.get_by_test_id("to-buy")).to_contain_text(f"{price[1]} m")
    expect(cloth.get_by_test_id("to-buy")).to_contain_text(f"{price[2]} to pay")

    cloth.get_by_role("button", name="Search 60 s").click()
    expect(cloth.get_by_role("status")).to_contain_text("so far")
    before = float(re.search(r"([\d.]+) cm so far", cloth.get_by_role("status").inner_text())[1])
    expect(cloth.get_by_role("status")).not_to_contain_text(f"{before:.1f} cm", timeout=60_000)
    cloth.get_by_role("button", name="Stop").click()
    expect(cloth.get_by_role("status")).to_contain_text("Stopped; the shortest so far.")

    pieces = cloth.locator("[data-laid]")
    name = pieces.first.get_attribute("data-laid")
    pieces.first.focus()
    page.keyboard.press("ArrowRight")
    expect(cloth.locator(f'[data-laid="{name}"][data-pinned]')).to_have_count(1)
    cloth.get_by_role("button", name="Lay the rest round the pinned piece").click()
    expect(cloth.get_by_role("alert")).to_have_count(0)
    expect(cloth.locator("[data-pinned]")).to_have_count(1)

    page.get_by_role("button", name="Send to the plotter").click()
    sheet = page.get_by_role("dialog", name="Plotter")
    sheet.get_by_role("button", name="Send this dress").click()
    expect(sheet.get_by_role("alert")).to_contain_text("The paper ended at the")
    expect(sheet.get_by_role("status")).to_contain_text("pieces drawn")
    sheet.get_by_role("button", name="Load 6 m of new paper").click()
    expect(sheet.get_by_role("img", name="Paper 2")).to_be_visible()
    sheet.get_by_role("button", name="Go on").click()
    expect(sheet.get_by_role("status")).to_contain_text("Ball gown is drawn, every piece whole.")
    assert sheet.get_by_role("img", name="Paper 2").locator("path").count() >= 2


def test_a_cloth_is_put_on_the_shelf_and_taken_into_a_dress(page, studio):
    page.goto(f"{studio.url}/cloths")
    page.get_by_role("button", name="Put a cloth on the shelf").click()
    form = page.get_by_role("dialog", name="Put a cloth on the shelf")
    form.get_by_label("Name").fill("Gull cotton")
    form.get_by_label("Width, selvedge to selvedge").fill("1 metre wide or so")
    form.get_by_role("button", name="Keep").click()
    expect(form.get_by_role("alert").first).to_be_visible()
    form.get_by_label("Width, selvedge to selvedge").fill("60 in")
    form.get_by_label("Price of a metre").fill("9,50")
    form.get_by_label("In hand").fill("50 cm")
    form.get_by_role("button", name="Keep").click()
    row = page.get_by_role("button", name="Change Gull cotton")
    expect(row).to_contain_text("152.4 cm wide; 0.50 m in hand; 9.50 a metre")

    open_commission(page, studio, "Fisher chorus dress")
    cloth = on_the_table(page).get_by_role("article", name="The pieces on the cloth")
    cloth.get_by_label("Cloth from the shelf").select_option(label="Gull cotton, 152.4 cm wide")
    expect(cloth.get_by_role("heading", name="Cloth: Gull cotton")).to_be_visible()
    expect(cloth.get_by_role("alert").first).to_contain_text("What is in hand is too short by")
    number = numbered(studio, "Fisher chorus dress")
    wait_until(lambda: get(studio, f"/api/commissions/{number}")["recipe"]["cloths"]["outer"]["name"] == "Gull cotton")


def test_a_pattern_is_printed_on_a_roll_and_as_a_trial(page, studio):
    open_commission(page, studio, "Fisher chorus dress")
    page.keyboard.press("5")
    page.get_by_text("Other papers, trials, lines").click()
    page.get_by_label("Other paper").select_option(label="36 in roll")
    page.get_by_label("Size").select_option(label="half, for a trial")
    with page.expect_download() as download:
        page.get_by_role("link", name="Pattern for your printer").click()
    with pdfplumber.open(io.BytesIO(download.value.path().read_bytes())) as pdf:
        assert "For a trial at 1/2 of true size" in pdf.pages[0].extract_text()
        assert abs(float(pdf.pages[1].width) - 36 * 72) < 0.1


def test_the_shelf_shows_how_a_cloth_falls(page, studio):
    page.goto(f"{studio.url}/cloths")
    page.get_by_role("button", name="Change Chalk linen").click()
    page.get_by_label("Drape").select_option("limp")
    page.get_by_text("How it falls", exact=True).click()
    falls = page.get_by_test_id("falls")
    expect(falls).to_be_visible(timeout=90_000)
    limp = int(re.search(r"Its drape is (\d+) %", falls.inner_text())[1])
    expect(falls.get_by_role("img", name="from above")).to_be_visible()
    expect(falls.get_by_role("img", name="from the side")).to_be_visible()
    page.get_by_label("Drape").select_option("crisp")
    expect(falls).not_to_contain_text(f"Its drape is {limp} %", timeout=90_000)
    expect(falls).to_be_visible(timeout=90_000)
    stiff = int(re.search(r"Its drape is (\d+) %", falls.inner_text())[1])
    assert limp + 20 < stiff
