"""The making plan worked down at the bench: ticked, timed, left waiting, noted, printed, and there again tomorrow."""

import io
import re

import pdfplumber
from playwright.sync_api import expect

from server import get
from workbench import numbered, open_commission


def at_the_bench(page, studio, title):
    open_commission(page, studio, title)
    page.keyboard.press("6")
    plan = page.get_by_role("region", name="Making", exact=True)
    expect(plan.get_by_role("article")).to_be_visible()
    return plan


def lines(plan):
    return plan.get_by_role("list", name="Operations in order")


def test_a_plan_is_worked_down_and_is_there_again(page, studio):
    plan = at_the_bench(page, studio, "Sundress")
    expect(plan.get_by_role("status")).to_contain_text("0 done")
    expect(lines(plan).get_by_role("button", name=re.compile("next"))).to_contain_text("Cut from the outer cloth")
    plan.get_by_role("article").get_by_role("button", name="Start the timer").click()
    expect(plan.get_by_role("timer")).to_be_visible()
    plan.get_by_role("button", name="Stop the timer").click()
    expect(plan.get_by_role("timer")).to_have_count(0)
    plan.get_by_label("Minutes it took").fill("42")
    plan.get_by_label("Note", exact=True).fill("The blue chalk came out.")
    plan.get_by_role("button", name="Keep the note").click()
    expect(lines(plan)).to_contain_text("The blue chalk came out.")
    plan.get_by_role("button", name="Done", exact=True).click()
    expect(plan.get_by_role("status")).to_contain_text("1 done")
    expect(plan.get_by_role("heading", level=3)).to_have_text("2. Mark darts and notches")
    for title in ("Mark darts and notches", "Staystitch the curved edges"):
        expect(plan.get_by_role("article", name=title)).to_be_visible()
        plan.get_by_role("button", name="Done", exact=True).click()
    page.reload()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    page.keyboard.press("6")
    expect(plan.get_by_role("status")).to_contain_text("3 done")
    lines(plan).get_by_role("button", name=re.compile("Cut from the outer cloth")).click()
    expect(plan.get_by_label("Minutes it took")).to_have_value("42")


def test_what_waits_is_passed_over_and_the_sides_may_come_last(page, studio):
    plan = at_the_bench(page, studio, "Fisher chorus dress")
    plan.get_by_label("Waits for").select_option("the cloth")
    expect(lines(plan)).to_contain_text("waits for the cloth")
    expect(lines(plan).get_by_role("button", name=re.compile("next"))).to_have_count(0)
    plan.get_by_label("How it is sewn together").select_option("waist_first")
    sides = lines(plan).get_by_role("button", name=re.compile("Side seams, underarm to hem in one"))
    sides.click()
    expect(plan.get_by_role("article")).to_contain_text("sides last, so that it can be let out")
    drawn = plan.get_by_role("figure", name="What is sewn").get_by_role("img")
    assert drawn.count() >= 4
    kept = get(studio, f"/api/commissions/{numbered(studio, 'Fisher chorus dress')}")
    assert kept["title"] == "Fisher chorus dress"


def test_what_is_typed_stays_when_it_cannot_be_read_or_sent(page, studio):
    plan = at_the_bench(page, studio, "Sundress")
    plan.get_by_label("Minutes it took").fill("half an hour")
    plan.get_by_label("Note", exact=True).focus()
    expect(plan.get_by_role("alert")).to_contain_text("A number of minutes is wanted")
    expect(plan.get_by_label("Minutes it took")).to_have_value("half an hour")
    plan.get_by_label("Minutes it took").fill("12,5")
    plan.get_by_label("Note", exact=True).focus()
    expect(plan.get_by_role("alert")).to_have_count(0)
    page.route("**/plan/operation*", lambda route: route.abort())
    plan.get_by_label("Note", exact=True).fill("Shear the selvedge.")
    plan.get_by_role("button", name="Keep the note").click()
    expect(plan.get_by_role("alert")).to_be_visible()
    expect(plan.get_by_label("Note", exact=True)).to_have_value("Shear the selvedge.")
    page.unroute("**/plan/operation*")
    plan.get_by_role("button", name="Keep the note").click()
    expect(lines(plan)).to_contain_text("Shear the selvedge.")
    expect(plan.get_by_role("alert")).to_have_count(0)


def test_the_bench_sheet_is_what_is_on_the_screen(page, studio):
    plan = at_the_bench(page, studio, "Sundress")
    titles = lines(plan).get_by_role("button").all_inner_texts()
    with page.expect_download() as download:
        plan.get_by_role("link", name="Print the bench sheet").click()
    with pdfplumber.open(io.BytesIO(download.value.path().read_bytes())) as pdf:
        text = " ".join(sheet.extract_text() for sheet in pdf.pages)
    assert len(titles) > 10
    for said in titles:
        number, *rest = [part.strip() for part in said.splitlines() if part.strip()]
        title = next(part for part in rest if part not in ("done", "next"))
        assert f"{number} {title.removesuffix('next').strip()}" in text
