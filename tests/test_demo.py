"""The demo studio as it is served: made fresh, complete, and on this machine only."""

import io
import zipfile
from datetime import date, timedelta

import httpx
import pytest

from gentle_hem.cli import main
from gentle_hem.demo.studio import FIRST_DUE, PLAYERS, later_by, works
from server import running


@pytest.fixture(scope="module")
def demo():
    with running() as server, httpx.Client(base_url=server.url, timeout=60) as client:
        yield client


def test_every_player_is_on_the_desk(demo):
    rows = demo.get("/api/desk").json()["rows"]
    assert {row["title"] for row in rows} == {work.title for _, work in works()}
    assert {row["person"]["name"] for row in rows} == {player.name for player in PLAYERS}
    assert [row["title"] for row in rows if row["stops"] or row["warnings"]] == ["Harbour dance dress"]
    assert {row["unit"] for row in rows} == {"cm", "in"}


def test_the_first_night_is_a_friday_two_or_three_weeks_ahead_whenever_the_studio_is_opened(demo):
    for today in (date(2026, 1, 1) + timedelta(days=17 * k) for k in range(100)):
        first = FIRST_DUE + later_by(today)
        assert 15 <= (first - today).days <= 21
        assert first.weekday() == 4
    shown = min(row["due_on"] for row in demo.get("/api/desk").json()["rows"])
    assert 14 <= (date.fromisoformat(shown) - date.today()).days <= 21


def test_every_player_has_a_dated_set_of_measures(demo):
    for person in demo.get("/api/people").json():
        figures = demo.get(f"/api/people/{person['id']}/figures").json()
        assert [f["taken_on"] for f in figures] == sorted(f["taken_on"] for f in figures)
        assert date.fromisoformat(figures[-1]["taken_on"]) <= date.today()
        assert all(figure["measures"]["bust_girth"] > 700 for figure in figures)


def test_every_commission_can_be_taken_home_as_files(demo):
    rows = demo.get("/api/desk").json()["rows"]
    names = demo.get("/api/files").json()
    for row in rows:
        answer = demo.get(f"/api/commissions/{row['id']}/files/pattern.zip")
        assert answer.status_code == 200, row["title"]
        with zipfile.ZipFile(io.BytesIO(answer.content)) as packed:
            assert {*packed.namelist(), "pattern.zip"} == {*names, "log.json"}
            assert all(len(packed.read(name)) > 100 for name in packed.namelist()), row["title"]
    for name in names:
        answer = demo.get(f"/api/commissions/{rows[0]['id']}/files/{name}")
        assert answer.status_code == 200, name
        assert len(answer.content) > 100


def test_a_demo_changed_is_fresh_again_when_started_again(demo):
    gown = next(row["id"] for row in demo.get("/api/desk").json()["rows"] if row["title"] == "Ball gown")
    recipe = demo.get(f"/api/commissions/{gown}").json()["recipe"]
    recipe["lower"]["length"] = 999.0
    body = {"recipe": recipe, "from_version": 1}
    assert demo.post(f"/api/commissions/{gown}/versions", json=body).json()["version"] == 2
    assert len(demo.get(f"/api/commissions/{gown}/versions").json()["versions"]) == 2
    assert demo.get(f"/api/commissions/{gown}/versions/1").json()["lower"]["length"] == 1080.0


def test_a_second_demo_on_the_same_port_is_refused(demo, capsys):
    assert main(["demo", "--port", str(demo.base_url.port)]) == 2
    assert "name another with --port" in capsys.readouterr().err


def test_pages_are_served_beside_the_api(demo):
    assert "<title>Gentle Hem</title>" in demo.get("/").text
    assert demo.get("/commission/3").text == demo.get("/").text
    assert demo.get("/api/health").json()["state"] == "ready"
