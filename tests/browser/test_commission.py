"""A commission from measuring to a second fitting: corrections taken, the plan worked down, the calendar moved."""

import re
from datetime import date, timedelta

from playwright.sync_api import expect

from server import get, wait_until
from workbench import numbered, shown


def begun(page, studio):
    page.goto(f"{studio.url}/new")
    page.get_by_label("Name of the dress").fill("Ferry dress")
    page.get_by_label("Whose it is").fill("Somebody New")
    page.get_by_label("Where the bodice comes from").select_option("two_lengths")
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("heading", name="Ferry dress")).to_be_visible()
    for key, typed in (("bust_girth", "94"), ("waist_girth", "74"), ("hip_girth", "100")):
        shown(page, f"figure.measures.{key}").focus()
        page.keyboard.press("Enter")
        page.wait_for_function("document.activeElement?.closest('[role=dialog]')")
        page.keyboard.type(typed)
        page.keyboard.press("Enter")
    expect(page.get_by_test_id("saved")).to_have_text(re.compile(r"^saved \d\d:\d\d$"))
    page.get_by_role("button", name="Ferry dress").click()
    page.get_by_role("dialog").get_by_label("By which day").fill((date.today() + timedelta(days=13)).isoformat())
    page.get_by_role("dialog").get_by_role("button", name="Keep").click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    return numbered(studio, "Ferry dress")


def taken(page, studio, number, seen, amount):
    """A thing seen at today's fitting, and its first correction taken into the dress."""
    before = get(studio, f"/api/commissions/{number}")["recipe"]
    log = page.get_by_role("region", name="Fittings", exact=True)
    there = log.get_by_text("Taken:").count()
    log.locator("#seen").select_option(seen)
    log.get_by_label("How much").fill(amount)
    log.get_by_role("button", name="Take it").first.click()
    expect(log.get_by_text("Taken:")).to_have_count(there + 1)
    wait_until(lambda: get(studio, f"/api/commissions/{number}")["recipe"] != before)
    return log


def test_from_measuring_to_a_second_fitting(page, studio):
    number = begun(page, studio)
    place = f"/api/commissions/{number}"
    assert get(studio, place)["recipe"]["figure"]["measures"] == {
        "bust_girth": 940, "waist_girth": 740, "hip_girth": 1000
    }  # fmt: skip

    # cut, marked and sewn up to the fitting, one operation after another; the cloth had to be waited for
    page.keyboard.press("6")
    plan = page.get_by_role("region", name="Making", exact=True)
    plan.get_by_label("Waits for").select_option("the cloth")
    arrives = date.today() + timedelta(days=3)
    plan.get_by_label("expected on").fill(arrives.isoformat())
    wait_until(lambda: _sittings_begin(page, studio, number) >= arrives.isoformat())
    plan.get_by_label("Waits for").select_option("")
    titles = []
    while (title := plan.get_by_role("heading", level=3).inner_text()) and "Fitting" not in title:
        titles.append(title)
        plan.get_by_role("button", name="Done", exact=True).click()
        expect(plan.get_by_role("status")).to_contain_text(f"{len(titles)} done")
    assert len(titles) > 8
    assert titles[0].endswith("Cut from the outer cloth")

    # the fitting is agreed, then moved in the calendar: what comes after it moves with it, and is said
    page.goto(f"{studio.url}/calendar")
    with page.expect_response("**/api/calendar/lay-out*"):
        page.get_by_role("button", name="Lay the days out anew").click()
    expect(page.get_by_role("button", name="Lay the days out anew")).to_be_enabled()
    mine = page.get_by_role("list", name="Calendar").get_by_role("listitem")
    mine = mine.filter(has_text=re.compile("Ferry dress: Fitting")).last
    mine.get_by_role("button", name="Agree a time").click()
    later = next(
        one["day"] for one in get(studio, "/api/calendar?days=60")["days"]
        if one["open_from"] and date.fromisoformat(one["day"]) > date.today() + timedelta(days=6)
    )  # fmt: skip
    page.get_by_label("Fitting at").fill(f"{later}T10:00")
    page.get_by_role("button", name="See what moves").click()
    expect(page.get_by_role("status").filter(has_text="moves from")).to_contain_text("Zip in the")
    page.get_by_role("button", name="Agree on it").click()
    agreed = page.get_by_role("region", name="Fittings agreed")
    expect(agreed).to_contain_text("Ferry dress")

    # the first fitting: two corrections, one of them undone again
    page.goto(f"{studio.url}/commission/{number}")
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    page.keyboard.press("7")
    page.get_by_role("button", name="A fitting today").click()
    log = taken(page, studio, number, "neck_stands_off", "8mm")
    after_first = get(studio, place)["recipe"]
    taken(page, studio, number, "hem_low", "2cm")
    page.get_by_role("button", name="Undo").click()
    wait_until(lambda: get(studio, place)["recipe"] == after_first)

    # the second, a week later: yesterday's is in the log, and the version it was taken over is not lost
    old = get(studio, f"{place}/fittings")["visits"][0]
    assert [note["seen"] for note in old["notes"]] == ["the neckline stands off", "it is too long"]
    page.clock.install()
    page.clock.set_system_time(f"{date.today() + timedelta(days=7)}T10:00:00")
    page.reload()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    page.keyboard.press("7")
    page.get_by_role("button", name="A fitting today").click()
    expect(log.get_by_role("article")).to_have_count(2)
    taken(page, studio, number, "neck_stands_off", "4mm")
    wedges = [step for step in get(studio, place)["recipe"]["steps"] if step != after_first["steps"]]
    assert len(wedges) >= 2
    page.keyboard.press("v")
    page.get_by_role("button", name="Compare with now").first.click()
    expect(page.get_by_role("region", name="Laid over each other")).to_contain_text("bodice front")


def _sittings_begin(page, studio, number):
    """The first day of the dress's work in the days laid out anew."""
    made = page.request.post(f"{studio.url}/api/calendar/lay-out?days=60").json()
    days = [day["day"] for day in made["days"] if any(one["commission"] == number for one in day["sittings"])]
    return days[0] if days else ""
