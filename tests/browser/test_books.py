"""The books: records brought back, a person erased, costs said, a cloth that is remembered, versions laid over each
other, the practice bench, and the door.
"""

import re
import sqlite3
from contextlib import closing
from math import pi

import pytest
from playwright.sync_api import expect

from gentle_hem.api.door import choose_passphrase
from gentle_hem.store.backup import FILE_NAME
from server import Server, get, lay_studio, wait_until
from workbench import numbered, open_commission


def test_a_backup_is_taken_and_brought_back_and_a_copy_is_looked_at(page, studio):
    page.goto(f"{studio.url}/records")
    with page.expect_download() as download:
        page.get_by_role("link", name="Everything in one file").click()
    backup = download.value.path()
    number = numbered(studio, "Sundress")
    page.goto(studio.url)
    page.get_by_role("button", name="What to do with Sundress").click()
    page.get_by_role("menuitem", name="Put away").click()
    expect(page.get_by_role("heading", name="Sundress")).to_have_count(0)
    page.goto(f"{studio.url}/records")
    expect(page.get_by_role("row").filter(has_text="Sundress").first).to_contain_text("Put away")
    expect(page.get_by_role("row").filter(has_text="Sundress").first).to_contain_text("this one")
    page.get_by_label("Bring a backup file back").set_input_files(backup)
    expect(page.get_by_role("status")).to_contain_text("Brought back. What it replaced is kept as")
    assert number in {row["id"] for row in get(studio, "/api/desk?most=200")["rows"]}
    replaced = page.get_by_role("listitem").filter(has_text="what was replaced").first
    replaced.get_by_role("button", name="Look at it").click()
    expect(replaced).to_contain_text("It is sound, and holds 6 people and 19 dresses")
    replaced.get_by_role("button", name="Bring it back").click()
    expect(page.get_by_role("status")).to_contain_text("Brought back")
    wait_until(lambda: number not in {row["id"] for row in get(studio, "/api/desk?most=200")["rows"]})
    page.get_by_label("Find").fill("sundress put away")
    expect(page.get_by_role("row").filter(has_text="Put away")).to_have_count(1)


def test_what_is_no_backup_is_refused_and_nothing_is_lost(page, studio, tmp_path):
    page.goto(f"{studio.url}/records")
    wrong = tmp_path / "holiday.sqlite"
    wrong.write_text("sea and sun")
    page.get_by_label("Bring a backup file back").set_input_files(wrong)
    expect(page.get_by_role("alert")).to_contain_text("holiday.sqlite is not a backup")
    assert get(studio, "/api/desk")["total"] == 19


def test_a_sheet_that_is_opened_while_something_is_kept_stays_open(page, studio):
    people = {one["name"]: one["id"] for one in get(studio, "/api/people")}
    page.goto(f"{studio.url}/people/{people['Wren Tolliver']}")
    on_their_way = []
    page.route(
        "**/api/people/*",
        lambda route: on_their_way.append(route) if route.request.method == "PATCH" else route.continue_(),
    )
    page.get_by_label("What she likes").fill("Kites.")
    with page.expect_request(lambda request: request.method == "PATCH"):
        page.get_by_role("button", name="Keep", exact=True).click()
    page.get_by_role("button", name="Her name").click()
    name = page.get_by_role("dialog").get_by_label("Name", exact=True)
    name.fill("Corinne")
    with page.expect_response(lambda answer: answer.request.method == "PATCH"):
        on_their_way.pop().continue_()
    expect(page.get_by_label("What she likes")).to_have_value("Kites.")
    expect(name).to_have_value("Corinne")


def test_a_person_is_renamed_put_away_made_one_with_another_and_erased(page, studio):
    people = {one["name"]: one["id"] for one in get(studio, "/api/people")}
    page.goto(f"{studio.url}/people/{people['Wren Tolliver']}")
    page.get_by_label("What she likes").fill("Kites, and pockets for string.")
    page.get_by_role("button", name="Keep", exact=True).click()
    page.get_by_role("button", name="Her name").click()
    page.get_by_role("dialog").get_by_label("Name", exact=True).fill("Corinne Dace")
    page.get_by_role("button", name="Keep the name").click()
    expect(page.get_by_role("dialog").get_by_role("alert")).to_contain_text("is on the books already")
    page.get_by_role("dialog").get_by_label("Name", exact=True).fill("Wren Moss")
    page.get_by_role("button", name="Keep the name").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Wren Moss")
    page.get_by_role("button", name="Put away", exact=True).click()
    expect(page.get_by_text("She is put away.")).to_be_visible()
    page.goto(f"{studio.url}/people")
    expect(page.get_by_role("link", name=re.compile("Pip Larkham"))).to_be_visible()
    expect(page.get_by_role("link", name=re.compile("Wren Moss"))).to_have_count(0)
    page.get_by_role("button", name="Those who are put away").click()
    page.get_by_role("link", name=re.compile("Wren Moss")).click()
    expect(page.get_by_label("What she likes")).to_have_value("Kites, and pockets for string.")
    page.get_by_role("button", name="Bring back").click()
    page.get_by_role("button", name="Make one with").click()
    page.get_by_label("The entry that stays").select_option("Pip Larkham")
    page.get_by_role("button", name="Make them one").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Pip Larkham")
    expect(page.get_by_role("heading", name="Kite dress")).to_be_visible()
    number = numbered(studio, "Kite dress")
    page.evaluate("number => localStorage.setItem(`hem.work.${number}.x`, '{}')", number)
    page.get_by_role("button", name="Erase her wholly").click()
    field = page.get_by_label("Type Pip Larkham to erase her")
    field.fill("Pip")
    page.get_by_role("button", name="Erase her", exact=True).click()
    expect(page.get_by_role("dialog").get_by_role("alert")).to_contain_text("nothing was erased")
    field.fill("Pip Larkham")
    page.get_by_role("button", name="Erase her", exact=True).click()
    expect(page.get_by_role("heading", level=1)).to_have_text("People")
    expect(page.get_by_role("link", name=re.compile("Pip Larkham"))).to_have_count(0)
    assert page.evaluate("number => localStorage.getItem(`hem.work.${number}.x`)", number) is None
    assert b"Pip Larkham" not in (studio.folder / FILE_NAME).read_bytes()


def test_costs_are_typed_where_they_stand_and_make_a_quote(page, studio):
    open_commission(page, studio, "Sundress")
    page.keyboard.press("6")
    page.get_by_role("button", name="Costs and quote").click()
    costs = page.get_by_role("dialog")
    expect(costs).to_contain_text("2 lines have no price yet")
    costs.get_by_label("Price of one: Zip").fill("4,5")
    costs.get_by_label("Price of one: Zip").press("Enter")
    expect(costs).to_contain_text("One line has no price yet")
    costs.get_by_label("Price of one: Hook and eye").fill("dear")
    expect(costs.get_by_role("alert")).to_contain_text("A number, 0 or more")
    costs.get_by_label("Price of one: Hook and eye").fill("0.5")
    costs.get_by_label("Hours counted").fill("3")
    expect(costs.get_by_role("row", name=re.compile("Work"))).to_contain_text("7.")
    costs.get_by_label("Something else", exact=True).click()
    expect(costs.get_by_role("row", name=re.compile("Work"))).to_contain_text("72.00")  # 3 h at 24
    costs.get_by_label("Something else", exact=True).fill("Shell buttons")
    costs.get_by_label("Amount: Something else").fill("11")
    costs.get_by_role("button", name="Add", exact=True).click()
    # 2 m of lawn at 16.80, 4.50, 0.50, 72 and 11
    expect(costs.get_by_role("row", name=re.compile("In all"))).to_contain_text("121.60")
    with page.expect_download() as download:
        costs.get_by_role("link", name="The quote to print").click()
    assert download.value.suggested_filename == "Sundress quote.pdf"


def test_what_is_learnt_of_a_cloth_is_told_at_the_next_dress_and_taken(page, studio):
    page.goto(f"{studio.url}/cloths")
    page.get_by_role("button", name="Change Wave border lawn").click()
    learnt = page.get_by_role("region", name="What was learnt of it")
    learnt.get_by_label("Before").fill("95")
    learnt.get_by_label("After").fill("100")
    learnt.get_by_role("button", name="Write it down").click()
    expect(learnt.get_by_role("alert")).to_contain_text("the right way round")
    learnt.get_by_label("Before").fill("100")
    learnt.get_by_label("After").fill("92")
    learnt.get_by_role("button", name="Write it down").click()
    expect(learnt).to_contain_text("100.0 cm before, 92.0 cm after: 8 %")
    open_commission(page, studio, "Sundress")
    page.keyboard.press("5")
    page.get_by_role("button", name="How much cloth").click()
    advice = page.get_by_role("region", name="What was learnt of its cloths")
    expect(advice).to_contain_text("The lay reckons with 3 %: it would come out short.")
    advice.get_by_role("button", name="Take it into the dress").click()
    expect(advice).to_contain_text("The lay reckons with 8 %.")
    number = numbered(studio, "Sundress")
    wait_until(lambda: get(studio, f"/api/commissions/{number}")["recipe"]["cloths"]["outer"]["shrinks"] == 8)


def test_an_earlier_version_lies_over_the_newest(page, studio):
    open_commission(page, studio, "Harbour master's suit dress")
    page.keyboard.press("v")
    page.locator('[data-version="1"]').get_by_role("button", name="Compare with now").click()
    over = page.get_by_role("region", name="Laid over each other")
    expect(over.get_by_role("figure", name="skirt front")).to_contain_text("-1.5 cm")
    expect(over.get_by_role("img", name="bodice front")).to_be_visible()
    expect(over).to_contain_text("pieces are as they were")


def test_the_practice_bench_by_keyboard(page, studio):
    page.goto(f"{studio.url}/practice")
    article = page.get_by_role("article", name="Radius")
    expect(page.get_by_label("Your answer")).to_be_focused()
    said = article.inner_text()
    waist = float(re.search(r"measures ([\d.]+) cm", said).group(1))
    page.keyboard.type(f"{waist / pi:.1f}")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status")).to_contain_text("Not so: it is")
    expect(page.get_by_role("status")).to_contain_text("diameter")
    expect(page.get_by_role("button", name="The next one")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("article", name="Cut radius")).to_contain_text("level 1 of 4")
    page.keyboard.type("wide")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_be_visible()
    expect(page.get_by_label("Your answer")).to_have_value("wide")
    page.reload()
    expect(page.get_by_text("0 of 1 right so far")).to_be_visible()  # what was no answer is none
    page.get_by_role("button", name="Begin anew").click()
    expect(page.get_by_role("article", name="Radius")).to_be_visible()


@pytest.fixture
def behind_the_door(tmp_path):
    """The program answering under a name of its own, as behind a proxy, on this machine."""
    choose_passphrase(tmp_path, "hem tide lantern salt")
    server = Server(tmp_path, "--name", "studio.test")
    server.start()
    lay_studio(tmp_path / FILE_NAME)
    yield server
    server.stop()


def test_the_door_opens_to_the_passphrase_and_is_locked_again(browser, behind_the_door):
    """Chromium keeps a Secure cookie of localhost, as of a page served over TLS."""
    url = behind_the_door.url.replace("127.0.0.1", "localhost")
    context = browser.new_context()
    page = context.new_page()
    page.goto(f"{url}/records")
    expect(page.get_by_label("Passphrase")).to_be_focused()
    page.keyboard.type("salt lantern")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_have_text("That is not the passphrase.")
    page.get_by_label("Passphrase").fill("hem tide lantern salt")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Ball gown")).to_be_visible()
    page.get_by_role("link", name="Records").click()
    expect(page.get_by_text("answers other machines too")).to_be_visible()
    page.get_by_role("button", name="Lock the door").click()
    expect(page.get_by_label("Passphrase")).to_be_visible()
    page.goto(f"{url}/records")
    expect(page.get_by_label("Passphrase")).to_be_visible()
    with closing(sqlite3.connect(behind_the_door.folder / FILE_NAME)) as records:
        assert records.execute("SELECT count(*) FROM commission").fetchone() == (19,)
    context.close()
