"""The desk by due day, what is done with a dress there, people, the words of the trade, the walk of a first visit."""

import re
from datetime import date

from playwright.sync_api import expect

from server import get
from workbench import numbered, open_commission, word


def slips(page):
    return page.get_by_role("main").get_by_role("listitem")


def do(page, title, what):
    page.get_by_role("button", name=f"What to do with {title}", exact=True).click()
    page.get_by_role("menuitem", name=what).click()


def test_dresses_lie_by_the_day_they_are_due_or_as_they_were_worked_on(page, studio):
    page.goto(studio.url)
    rows = get(studio, "/api/desk?by=due")["rows"]
    days = sorted({row["due_on"] for row in rows})
    heads = page.get_by_role("heading", level=2)
    expect(heads).to_have_count(len(days))
    first = date.fromisoformat(days[0])
    expect(heads.first).to_have_text(f"{first.day} {first:%B}")
    left = (first - date.today()).days
    expect(page.get_by_text(f"Friday, in {left} days")).to_be_visible()
    expect(slips(page).first.get_by_role("heading")).to_have_text(rows[0]["title"])
    page.get_by_role("button", name="due day").click()
    expect(heads).to_have_count(0)
    expect(slips(page).first.get_by_role("heading")).to_have_text(get(studio, "/api/desk")["rows"][0]["title"])
    page.reload()
    expect(page.get_by_role("button", name="last worked on")).to_be_visible()  # remembered


def test_a_dress_is_renamed_copied_put_away_and_brought_back(page, studio):
    page.goto(studio.url)
    do(page, "Ball gown", "Name, person and day")
    name = page.get_by_role("dialog").get_by_label("Name of the dress")
    name.fill("")
    page.get_by_role("button", name="Keep").click()
    expect(page.get_by_role("alert")).to_contain_text("must not be empty")
    name.fill("Winter ball gown")
    page.get_by_label("By which day").fill("2031-01-03")
    page.get_by_role("button", name="Keep").click()
    expect(page.get_by_role("dialog")).to_be_hidden()
    expect(page.get_by_role("heading", name="3 January")).to_be_visible()
    do(page, "Winter ball gown", "Copy")
    expect(page.get_by_role("heading", name="Winter ball gown, again", exact=True)).to_be_visible()
    do(page, "Winter ball gown", "Put away")
    expect(page.get_by_role("heading", name="Winter ball gown", exact=True)).to_have_count(0)
    page.get_by_role("button", name="1 put away").click()
    expect(slips(page)).to_have_count(1)
    do(page, "Winter ball gown", "Bring back to the desk")
    expect(page.get_by_text("Nothing is put away.")).to_be_visible()
    page.get_by_role("button", name="Back to the desk").click()
    expect(page.get_by_role("heading", name="Winter ball gown", exact=True)).to_be_visible()


def test_one_key_goes_to_the_dress_that_was_open_before(page, studio):
    open_commission(page, studio, "Ball gown")
    page.keyboard.press("d")
    page.get_by_role("heading", name="Sundress").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Sundress")
    for title in ("Ball gown", "Sundress"):
        page.keyboard.press("o")
        expect(page.get_by_role("heading", level=1)).to_have_text(title)
    page.keyboard.press("d")
    page.keyboard.press("o")
    expect(page.get_by_role("heading", level=1)).to_have_text("Sundress")


def test_a_person_has_a_page_with_her_measures_over_time_and_her_dresses(page, studio):
    page.goto(studio.url)
    page.get_by_role("link", name="People").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("People")
    page.get_by_role("link", name="Isolde Marrin").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Isolde Marrin")
    expect(page).to_have_title("Isolde Marrin · Gentle Hem")
    waist = page.get_by_role("row", name=re.compile("waist girth"))
    person = next(one["id"] for one in get(studio, "/api/people") if one["name"] == "Isolde Marrin")
    taken = [one["measures"]["waist_girth"] for one in get(studio, f"/api/people/{person}/figures")]
    grown = f"+{(taken[-1] - taken[0]) / 10:.1f} cm"
    expect(waist.get_by_role("cell")).to_have_text([*(f"{one / 10:.1f} cm" for one in taken), "", grown])
    expect(waist.locator("svg circle")).to_have_count(len(taken))
    page.get_by_role("heading", name="Ball gown").click()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    page.get_by_role("link", name="Isolde Marrin").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Isolde Marrin")


def test_the_name_is_changed_on_the_bench_and_the_page_s_title_with_it(page, studio):
    open_commission(page, studio, "Sundress")
    page.get_by_role("button", name="Sundress").click()
    page.get_by_label("Name of the dress").fill("Garden dress")
    page.get_by_role("button", name="Keep").click()
    expect(page).to_have_title("Garden dress · Gentle Hem")
    expect(page.get_by_role("heading", level=1)).to_have_text("Garden dress")


def test_a_word_explains_itself_and_the_words_are_found_by_their_doubles(page, studio):
    open_commission(page, studio, "Sundress")
    word(page, "lower.sweep").click()
    expect(page.get_by_role("dialog")).to_contain_text("360 is a full circle")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="What is “circle”?").click()
    expect(page.get_by_text("Its radius is the seam divided by the sweep.")).to_be_visible()
    page.get_by_label("Lower part", exact=True).select_option("trousers")
    expect(page.locator('[data-piece="trouser front"]')).to_be_visible()
    expect(page.get_by_role("button", name="What is “circle”?")).to_have_count(0)
    expect(page.get_by_role("button", name=re.compile("What is “(trousers|”)", re.I))).to_have_count(0)  # no answer
    page.goto(f"{studio.url}/words")
    page.get_by_role("searchbox").fill("jumper with bib")
    expect(page.get_by_role("term")).to_have_text(["pinafore"])


def test_a_first_visit_is_walked_round_once_and_again_only_when_asked(page, studio):
    page.goto(studio.url)
    page.evaluate("localStorage.setItem('hem.walk', 'going')")
    page.goto(f"{studio.url}/commission/{numbered(studio, 'Sundress')}")
    walk = page.get_by_role("region", name="Round the bench")
    expect(walk).to_contain_text("1 of 5")
    for step in range(2, 6):
        walk.get_by_role("button", name="Next").click()
        expect(walk).to_contain_text(f"{step} of 5")
        expect(page.locator("[data-walked]")).to_have_count(1)
    walk.get_by_role("button", name="To work").click()
    expect(walk).to_have_count(0)
    page.reload()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    expect(walk).to_have_count(0)
    page.keyboard.press("?")
    page.get_by_role("button", name="Walk round the bench").click()
    expect(walk).to_contain_text("1 of 5")
    walk.get_by_role("button", name="Leave").click()
    expect(walk).to_have_count(0)
