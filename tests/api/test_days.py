"""The calendar over the API: laid out, worked down, a fitting agreed and slipped, what does not go said, and .ics."""

import json
from datetime import date, datetime, time, timedelta
from itertools import pairwise
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from icalendar import Calendar
from sqlalchemy import select

from gentle_hem.api.app import create_app
from gentle_hem.store import Store
from gentle_hem.store.models import SittingRow

CIRCLE = json.loads(Path("examples/full-circle.recipe.json").read_text())
LONG = {"week": [{"opens": "00:00", "closes": "23:45"}] * 7, "closed": []}
"""Open day and night, so that no test depends on the hour it runs at."""


@pytest.fixture
def client(tmp_path):
    with TestClient(create_app(Store(tmp_path)), base_url="http://127.0.0.1") as made:
        assert made.put("/api/calendar/hours", json=LONG).status_code == 204
        yield made


def begun(client, title, due_in=None):
    due = str(date.today() + timedelta(days=due_in)) if due_in is not None else None
    made = client.post("/api/commissions", json={"title": title, "person": f"For {title}", "due_on": due}).json()
    said = client.post(f"/api/commissions/{made['id']}/versions", json={"recipe": CIRCLE, "from_version": 1})
    assert said.status_code == 201
    return made["id"]


def laid_out(client):
    answer = client.post("/api/calendar/lay-out", params={"days": 20})
    assert answer.status_code == 200, answer.text
    return answer.json()


def sittings(calendar, number=None):
    return [one for day in calendar["days"] for one in day["sittings"] if number in (None, one["commission"])]


def when(text):
    return datetime.fromisoformat(text)


def test_an_empty_workroom_says_so_and_lays_out_nothing(client):
    said = client.get("/api/calendar").json()
    assert said["stale"] == "Nothing is laid into the days yet."
    assert sittings(said) == []
    assert sittings(laid_out(client)) == []
    assert client.get("/api/calendar").json()["stale"] == ""


def test_every_operation_of_every_dress_has_its_time_and_the_one_due_first_goes_first(client):
    later, sooner = begun(client, "Later", 15), begun(client, "Sooner", 9)
    said = laid_out(client)
    plan = client.post(f"/api/commissions/{sooner}/plan", json=CIRCLE).json()
    for number in (later, sooner):
        there = dict.fromkeys(one["key"] for one in sittings(said, number))
        assert set(there) == {one["key"] for one in plan["operations"]}
    assert when(sittings(said, sooner)[0]["start"]) < when(sittings(said, later)[0]["start"])
    order = sorted(sittings(said), key=lambda one: one["start"])
    assert all(a["end"] <= b["start"] for a, b in pairwise(order))
    assert [day["due"][0]["title"] for day in said["days"] if day["due"]] == ["Sooner", "Later"]
    hang = next(one for one in sittings(said, sooner) if one["key"] == "hang")
    level = next(one for one in sittings(said, sooner) if one["key"] == "level")
    assert when(level["start"]) - when(hang["end"]) >= timedelta(hours=24)
    assert client.get("/api/calendar", params={"days": 20}).json()["days"] == said["days"]  # it is kept


def test_what_is_done_leaves_the_days_when_they_are_laid_out_again(client):
    number = begun(client, "Dress", 9)
    laid_out(client)
    client.put(f"/api/commissions/{number}/plan/operation", json={"operation": "cut cloth", "done": True})
    keys = {one["key"] for one in sittings(laid_out(client), number)}
    assert "cut cloth" not in keys
    assert "mark" in keys


def test_what_is_ticked_leaves_the_days_at_once_and_is_never_said_to_lie_behind(client):
    number = begun(client, "Dress", 9)
    laid_out(client)
    store = client.app.state.store
    with store.writing() as session:  # it was all laid out for last week
        for row in session.scalars(select(SittingRow)):
            row.start_at, row.end_at = row.start_at - timedelta(days=30), row.end_at - timedelta(days=30)
    month_ago = {"start": str(date.today() - timedelta(days=31)), "days": 40}
    before = client.get("/api/calendar", params=month_ago).json()
    assert before["behind"] == len(sittings(before))
    assert not before["worked_since"]
    cut = [one for one in sittings(before) if one["key"] == "cut cloth"]
    client.put(f"/api/commissions/{number}/plan/operation", json={"operation": "cut cloth", "done": True})
    after = client.get("/api/calendar", params=month_ago).json()
    assert after["behind"] == before["behind"] - len(cut)
    assert "cut cloth" not in {one["key"] for one in sittings(after)}
    assert after["worked_since"]
    client.patch(f"/api/commissions/{number}", json={"put_away": True})
    assert client.get("/api/calendar", params=month_ago).json()["behind"] == 0


def test_a_fitting_is_not_moved_among_days_that_are_no_longer_so(client):
    number = begun(client, "Dress", 15)
    laid_out(client)
    to = datetime.combine(date.today() + timedelta(days=5), time(10)).isoformat()
    client.put(f"/api/commissions/{number}/plan/school", json={"school": "waist_first"})
    refused = client.put("/api/calendar/fitting", json={"commission": number, "at": to})
    assert refused.status_code == 409
    assert refused.json()["detail"].startswith("1 dress has changed since the days were laid out. Lay them out anew")
    assert "1 dress has changed" in client.get("/api/calendar").json()["stale"]  # asking changed nothing
    laid_out(client)
    past = client.put("/api/calendar/fitting", json={"commission": number, "at": "2020-01-01T10:00"})
    assert (past.status_code, past.json()["detail"]) == (422, "That is over; a fitting is agreed for a time to come.")
    assert client.put("/api/calendar/fitting", json={"commission": number, "at": to}).status_code == 200


def test_what_cannot_be_done_in_time_is_said_with_whose_fault_it_is(client):
    begun(client, "Today", 0)
    said = laid_out(client)
    [late] = said["late"]
    assert late["text"].startswith("Today is due on ")
    assert "even alone, its work and its waits take until" in late["text"]  # it hangs for a day


def test_a_fitting_that_slips_is_tried_first_and_moves_only_what_follows(client):
    number, other = begun(client, "Fitted", 15), begun(client, "Other", 15)
    before = laid_out(client)
    fitting = next(one for one in sittings(before, number) if one["fitting"])
    assert not fitting["agreed"]
    to = datetime.combine(date.today() + timedelta(days=5), time(10))
    tried = client.put("/api/calendar/fitting", json={"commission": number, "at": to.isoformat()}).json()
    assert any(said.startswith("“Zip in the centre back” moves from ") for said in tried["moves"])
    assert client.get("/api/calendar", params={"days": 20}).json()["days"] == before["days"]  # only tried
    client.put("/api/calendar/fitting", json={"commission": number, "at": to.isoformat(), "keep": True})
    after = client.get("/api/calendar", params={"days": 20}).json()
    assert sittings(after, other) == sittings(before, other)
    moved = next(one for one in sittings(after, number) if one["fitting"])
    assert (when(moved["start"]), moved["agreed"]) == (to, True)
    zips = [when(one["start"]) for one in sittings(after, number) if one["key"] == "zip"]
    assert min(zips) >= to + timedelta(hours=1)
    again = laid_out(client)  # an agreed fitting stands
    assert next(when(one["start"]) for one in sittings(again, number) if one["fitting"]) == to


def test_a_fitting_agreed_too_soon_is_a_conflict_and_nothing_is_moved_for_it(client):
    number = begun(client, "Fitted", 15)
    laid_out(client)
    to = datetime.now().replace(second=0, microsecond=0) + timedelta(minutes=20)
    tried = client.put("/api/calendar/fitting", json={"commission": number, "at": to.isoformat()}).json()
    assert any("The fitting of Fitted is agreed for" in one["text"] for one in tried["conflicts"])


def test_hours_that_close_before_they_open_are_refused_in_a_sentence(client):
    bad = client.put("/api/calendar/hours", json={**LONG, "week": [{"opens": "17:00", "closes": "09:00"}] + [None] * 6})
    assert bad.status_code == 422
    assert "a day closes after it opens" in bad.text
    assert client.put("/api/calendar/hours", json={**LONG, "week": [None] * 7}).status_code == 204
    begun(client, "Dress", 3)
    [late] = laid_out(client)["late"]
    assert "there is no open hour for all of it" in late["text"]


def test_a_changed_dress_asks_for_the_days_to_be_laid_out_anew(client):
    number = begun(client, "Dress", 9)
    laid_out(client)
    shorter = {**CIRCLE, "lower": {**CIRCLE["lower"], "length": 500}}
    client.post(f"/api/commissions/{number}/versions", json={"recipe": shorter, "from_version": 2})
    assert "1 dress has changed" in client.get("/api/calendar").json()["stale"]
    client.patch(f"/api/commissions/{number}", json={"put_away": True})
    assert sittings(laid_out(client)) == []


def test_it_goes_out_as_icalendar(client):
    """Read back by the icalendar library (RFC 5545): every sitting by its name once, the due day a whole day."""
    number = begun(client, "Wren, and the “sea”", 9)
    said = laid_out(client)
    book = Calendar.from_ical(client.get("/api/calendar/gentle-hem.ics").content)
    events = list(book.walk("VEVENT"))
    uids = [str(one["uid"]) for one in events]
    assert len(set(uids)) == len(uids) == len(sittings(said, number)) + 1
    due = next(one for one in events if str(one["summary"]).endswith("is due"))
    assert due.decoded("dtstart") == date.today() + timedelta(days=9)
    first = min((one for one in events if one is not due), key=lambda one: one.decoded("dtstart"))
    assert str(first["summary"]) == "Wren, and the “sea”: Cut from the outer cloth"
    assert first.decoded("dtstart").tzinfo is None
