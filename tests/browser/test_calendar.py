"""The calendar: the demo's days with their conflict, a fitting tried elsewhere and agreed, hours, a plan ticked."""

import re
from datetime import date, timedelta
from itertools import pairwise

from icalendar import Calendar
from playwright.sync_api import expect

from server import get
from workbench import numbered, open_commission


def at_the_calendar(page, studio):
    page.goto(studio.url)
    expect(page.get_by_role("heading", name="Ball gown")).to_be_visible()
    page.keyboard.press("k")
    expect(page.get_by_role("heading", level=1)).to_have_text("Calendar")
    days = page.get_by_role("list", name="Calendar")
    expect(days.get_by_role("heading")).to_have_count(14)
    return days


def test_a_conflict_is_said_and_solved_by_the_maker_not_by_itself(page, demo):
    days = at_the_calendar(page, demo)
    conflict = page.get_by_role("region", name="Does not go")
    expect(conflict).to_contain_text("The fitting of Ball gown is agreed for")
    before = get(demo, "/api/calendar?days=60")
    fitting = days.get_by_role("listitem").filter(has_text=re.compile("Ball gown: Fitting")).last
    fitting.get_by_role("button", name="Another time").click()
    to = next(
        one["day"] for one in get(demo, "/api/calendar?days=60")["days"]
        if one["open_from"] and date.fromisoformat(one["day"]) > date.today() + timedelta(days=24)
    )  # fmt: skip
    page.get_by_label("Fitting at").fill(f"{to}T11:00")
    page.get_by_role("button", name="See what moves").click()
    expect(page.get_by_role("status").filter(has_text="moves from")).to_contain_text("Zip in the")
    assert get(demo, "/api/calendar?days=60")["days"] == before["days"]  # only looked at
    page.get_by_role("button", name="Agree on it").click()
    expect(page.get_by_text("The fitting of Ball gown is agreed for")).to_have_count(0)
    after = get(demo, "/api/calendar?days=60")
    number = numbered(demo, "Ball gown")
    others = [[s for day in c["days"] for s in day["sittings"] if s["commission"] != number] for c in (before, after)]
    assert others[0] == others[1]
    assert any(s["start"] == f"{to}T11:00:00" for day in after["days"] for s in day["sittings"] if s["fitting"])
    page.get_by_role("button", name="Lay the days out anew").click()
    expect(page.get_by_text("nothing lies across anything")).to_be_visible()  # all others go round it now


def test_a_time_that_is_being_agreed_stays_when_the_days_are_laid_out_meanwhile(page, demo):
    """The fitting comes to lie on another day, and what was begun for it goes with it."""

    made = get(demo, "/api/calendar?days=14")
    day, later, moved = next(
        (day, later, [one for one in day["sittings"] if one["fitting"] and not one["agreed"]])
        for day, later in pairwise(made["days"])
        if any(one["fitting"] and not one["agreed"] for one in day["sittings"])
    )
    day["sittings"] = [one for one in day["sittings"] if one not in moved]
    later["sittings"] += [{**one, "start": f"{later['day']}T17:00:00"} for one in moved]
    at_the_calendar(page, demo)
    page.get_by_role("button", name="Agree a time").first.click()
    when = page.get_by_label("Fitting at")
    asked = f"{when.input_value()[:10]}T10:30"
    when.fill(asked)
    page.route("**/api/calendar?*", lambda route: route.fulfill(json=made))
    page.route("**/api/calendar/lay-out*", lambda route: route.fulfill(json=made))
    page.get_by_role("button", name="Lay the days out anew").click()
    there = page.get_by_role("list", name="Calendar").get_by_role("listitem").filter(has_text="17:00–")
    expect(there.get_by_label("Fitting at")).to_have_value(asked)
    page.get_by_role("button", name="Leave it").click()
    expect(when).to_have_count(0)
    page.unroute_all()


def test_hours_are_kept_and_what_is_done_leaves_the_days(page, demo):
    days = at_the_calendar(page, demo)
    page.get_by_text("When the workroom is open").click()
    page.get_by_label("Saturday", exact=True).check()
    page.get_by_label("Saturday opens").fill("10:00")
    page.get_by_role("button", name="Keep the hours").click()
    saturday = days.get_by_role("listitem").filter(has_text=re.compile("^Saturday")).nth(1)  # the first may be today
    expect(saturday).to_contain_text("nothing to do")
    page.get_by_role("button", name="Lay the days out anew").click()
    expect(saturday).to_contain_text("10:00")
    first = get(demo, "/api/calendar?days=60")["days"]
    number = numbered(demo, "Sundress")
    assert any(s["key"] == "cut cloth" for day in first for s in day["sittings"] if s["commission"] == number)
    open_commission(page, demo, "Sundress")
    page.keyboard.press("6")
    page.get_by_role("article").get_by_role("button", name="Done", exact=True).click()
    expect(page.get_by_role("status").filter(has_text="1 done")).to_be_visible()
    page.goto(f"{demo.url}/calendar")
    page.get_by_role("button", name="Lay the days out anew").click()
    page.wait_for_function(
        """async (number) => (await (await fetch('/api/calendar?days=60')).json()).days
        .every(day => day.sittings.every(one => one.commission !== number || one.key !== 'cut cloth'))""",
        arg=number,
    )
    with page.expect_download() as download:
        page.get_by_role("link", name="As a calendar file").click()
    assert len(Calendar.from_ical(download.value.path().read_bytes()).walk("VEVENT")) > 50
