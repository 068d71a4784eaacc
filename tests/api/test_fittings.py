"""Fittings over the API: visits, notes, corrections tried and taken; the third note belongs in the person's block."""

import zipfile
from datetime import date, timedelta
from io import BytesIO

import pytest
from fastapi.testclient import TestClient
from PIL import Image
from pytest import approx

from conftest import FIGURE
from gentle_hem.api.app import create_app
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe
from gentle_hem.store import Store

DRESS = {
    "figure": {"measures": FIGURE}, "bodice": {"kind": "quarters"}, "lower": {"kind": "straight", "length": 620},
    "opening": {"place": "centre_back", "below_waist": 180},
}  # fmt: skip


@pytest.fixture
def client(tmp_path):
    with TestClient(create_app(Store(tmp_path)), base_url="http://127.0.0.1") as made:
        yield made


def begun(client, title="A dress", person="Tilde"):
    made = client.post("/api/commissions", json={"title": title, "person": person}).json()
    said = client.post(f"/api/commissions/{made['id']}/versions", json={"recipe": DRESS, "from_version": 1})
    assert said.status_code == 201
    return made["id"]


def visit(client, dress, ago=0):
    day = str(date.today() - timedelta(days=ago))
    said = client.post(f"/api/commissions/{dress}/fittings", json={"on_day": day}).json()
    return next(one["id"] for one in said["visits"] if one["on_day"] == day)


def note(client, visit_id, seen, **rest):
    answer = client.post(f"/api/fittings/{visit_id}/notes", json={"seen": seen, **rest})
    assert answer.status_code == 201, answer.text
    return answer.json()


def tries(client, seen, amount="", unit="cm"):
    body = {"recipe": {**DRESS, "unit": unit}, "seen": seen, "amount": amount}
    return client.post("/api/fittings/tries", params={"unit": unit}, json=body)


def test_a_visit_is_logged_with_what_was_seen_where_and_what_was_wished(client):
    dress = begun(client)
    first, second = visit(client, dress, 9), visit(client, dress)
    assert visit(client, dress, 9) == first  # one a day
    client.put(f"/api/fittings/{second}/wishes", json={"wishes": "No higher at the neck."})
    said = note(client, second, "armhole_tight", side="left", piece="bodice front", edge="armhole", text="pinches",
                amount=6.4)  # fmt: skip
    assert [one["id"] for one in said["visits"]] == [first, second]
    assert said["visits"][1]["wishes"] == "No higher at the neck."
    [there] = said["visits"][1]["notes"]
    assert (there["side"], there["piece"], there["edge"], there["text"]) == (
        "left",
        "bodice front",
        "armhole",
        "pinches",
    )
    assert there["seen"].startswith("the armhole is tight")
    assert (there["amount"], there["taken"]) == ("0.6 cm", "")
    assert client.get(f"/api/commissions/{dress}/fittings").json() == said


def test_tries_say_what_they_do_to_the_amount_asked_in_the_askers_unit(client):
    [front, _] = tries(client, "neck_stands_off", "1/2 in", "in").json()
    assert front["amount"] == "1/2 in off its length, each half"
    made = client.post("/api/make-up", json={**DRESS, **front["changes"]}).json()
    before = make_up(read_recipe(DRESS)).piece("bodice front").stitched_length("neckline")
    after = make_up(read_recipe({**DRESS, **front["changes"]})).piece("bodice front").stitched_length("neckline")
    assert before - after == approx(12.7, abs=0.5)
    assert made["sheet"]["pieces"]
    lower, _ = tries(client, "armhole_tight").json()
    assert lower["amount"] == "1.3 cm lower"
    assert any(follow["seam"] == "bodice side seam" for follow in lower["follows"])


def test_a_try_is_done_on_the_side_that_was_seen_to(client):
    body = {"recipe": DRESS, "seen": "drag_from_tip", "side": "left"}
    [raised, _] = client.post("/api/fittings/tries", json=body).json()
    assert raised["changes"]["steps"][-1]["side"] == "left"
    front = make_up(read_recipe({**DRESS, **raised["changes"]})).piece("bodice front")
    tips = [front.edge(name).path.box[3] for name in ("armhole", "armhole other")]
    assert tips[0] - tips[1] == approx(6.35, abs=0.5)
    whole = client.post("/api/fittings/tries", json={**body, "seen": "bulge_at_zip"}).json()
    assert {one["refused"] for one in whole} == {"It is done to left and right alike; take it for both sides."}


@pytest.mark.parametrize(("amount", "says"), [("much", "much"), ("-1cm", "more than nothing"), ("4 m", "at most")])
def test_an_amount_that_is_none_is_refused_in_a_sentence(client, amount, says):
    refused = tries(client, "neck_stands_off", amount)
    assert refused.status_code == 422
    assert says in refused.json()["detail"]


def test_what_is_not_in_the_guide_or_not_tried_for_it_is_refused(client):
    assert tries(client, "the_moon").status_code == 404
    there = visit(client, begun(client))
    wrong = client.post(f"/api/fittings/{there}/notes", json={"seen": "neck_stands_off", "taken": "drop_tip"})
    assert wrong.status_code == 422
    assert "not among what is tried where the neckline stands off" in wrong.json()["detail"]


def test_the_third_note_is_proposed_for_the_block_and_the_next_draft_has_it(client):
    one, other = begun(client, "One"), begun(client, "Other")
    taken = {"amount": 5.0, "taken": "neck_wedge", "over_version": 2}
    said = note(client, visit(client, one, 20), "neck_stands_off", **taken)
    said = note(client, visit(client, one, 20), "neck_stands_off", **taken)  # the same fitting counts once
    assert said["proposed"] == []
    note(client, visit(client, other, 9), "neck_stands_off")
    said = note(client, visit(client, one), "neck_stands_off", amount=6.0, taken="neck_wedge", over_version=3)
    [proposed] = said["proposed"]
    assert proposed["text"].startswith("At 3 fittings of Tilde the neckline stands off.")
    assert "1.6 cm off its length" in proposed["text"]  # 5, 5 and 6 mm, one after another
    person = client.get(f"/api/commissions/{one}").json()["person"]["id"]
    stranger = begun(client, "Hers", "Somebody else")
    assert client.get(f"/api/commissions/{stranger}/fittings").json()["proposed"] == []
    early = client.post(f"/api/people/{person}/block", json={"seen": "armhole_tight"})
    assert early.status_code == 409
    assert client.post(f"/api/people/{person}/block", json={"seen": "neck_stands_off"}).status_code == 204
    now = client.get(f"/api/commissions/{one}/fittings").json()
    assert now["proposed"] == []
    assert [each["seen"] for each in now["in_block"]] == ["neck_stands_off"]
    client.post(f"/api/people/{person}/figures", json={"taken_on": str(date.today()), "measures": FIGURE})
    draft = {"title": "Next", "person": "Tilde", "family": "circle", "bodice": "quarters"}
    begun_with = client.post("/api/commissions", json=draft).json()["recipe"]
    assert [step["kind"] for step in begun_with["steps"]][-1] == "wedge"
    without = {**begun_with, "steps": begun_with["steps"][:-1]}
    necks = [make_up(read_recipe(each)).piece("bodice front").stitched_length("neckline")
             for each in (without, begun_with)]  # fmt: skip
    assert necks[0] - necks[1] == approx(16.0, abs=0.5)
    assert client.delete(f"/api/people/{person}/block/neck_stands_off").status_code == 204
    assert [each["seen"] for each in client.get(f"/api/commissions/{one}/fittings").json()["proposed"]] == [
        "neck_stands_off"
    ]


def test_what_depends_on_one_dress_alone_is_never_proposed(client):
    dress = begun(client)
    for ago in (30, 20, 10):
        said = note(client, visit(client, dress, ago), "hem_low", amount=20, taken="shorten_lower", over_version=2)
    assert said["proposed"] == []


def a_picture(size=(3000, 2000), kind="JPEG", **more):
    content = BytesIO()
    picture = Image.new("RGB", size, "#806040")
    picture.paste("#ffffff", (0, 0, size[0] // 4, size[1] // 4))
    picture.save(content, kind, **more)
    return content.getvalue()


def visited(client):
    dress = begun(client)
    made = client.post(f"/api/commissions/{dress}/fittings", json={"on_day": "2026-11-27"}).json()
    return dress, made["visits"][-1]["id"]


def send(client, visit, content, name="waist.jpg"):
    return client.post(f"/api/fittings/{visit}/photographs", files={"file": (name, content)})


def test_a_photograph_is_kept_upright_small_and_without_where_it_was_taken(client):
    dress, visit = visited(client)
    exif = Image.Exif()
    exif[0x0112] = 6  # lying on its side
    exif[0x010F] = "A camera with a name"
    exif.get_ifd(0x8825)[2] = (51.0, 30.0, 0.0)
    kept = send(client, visit, a_picture(exif=exif.tobytes()))
    assert kept.status_code == 201, kept.text
    answer = client.get(f"/api/photographs/{kept.json()}")
    assert answer.headers["content-type"] == "image/jpeg"
    with Image.open(BytesIO(answer.content)) as picture:
        assert max(picture.size) == 1600
        assert picture.height > picture.width, "turned the right way up"
        assert dict(picture.getexif()) == {}
        assert picture.getpixel((picture.width - 20, 20))[0] > 240, "its corner came along"
    assert b"A camera with a name" not in answer.content
    visits = client.get(f"/api/commissions/{dress}/fittings").json()["visits"]
    assert visits[-1]["photographs"] == [kept.json()]
    client.delete(f"/api/photographs/{kept.json()}")
    assert client.get(f"/api/photographs/{kept.json()}").status_code == 404


@pytest.mark.parametrize("kind", ["PNG", "WEBP"])
def test_other_kinds_of_photographs_are_kept_as_jpeg(client, kind):
    _, visit = visited(client)
    number = send(client, visit, a_picture((400, 300), kind)).json()
    assert client.get(f"/api/photographs/{number}").content.startswith(b"\xff\xd8")


@pytest.mark.parametrize(
    ("content", "why"),
    [
        (b"", "not a photograph"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'/>", "not a photograph"),
        (b"GIF89a" + b"\x00" * 100, "not a photograph"),
        (a_picture((500, 500))[:600], "cut short"),
        (b"%!PS-Adobe-3.0 EPSF-3.0\n" + b"x" * 100, "not a photograph"),
    ],
)
def test_what_is_no_photograph_is_refused_in_a_sentence(client, content, why):
    dress, visit = visited(client)
    before = client.get(f"/api/commissions/{dress}/fittings").json()["visits"][-1]["photographs"]
    answer = send(client, visit, content)
    assert answer.status_code == 422
    assert why in answer.json()["detail"]
    assert client.get(f"/api/commissions/{dress}/fittings").json()["visits"][-1]["photographs"] == before


def test_more_pixels_than_are_looked_at_are_refused_before_they_are_unpacked(client):
    """A PNG of 10,000 by 10,000 that packs to a few hundred kilobytes."""
    content = BytesIO()
    Image.new("1", (10_000, 10_000)).save(content, "PNG")
    _, visit = visited(client)
    answer = send(client, visit, content.getvalue(), "huge.png")
    assert answer.status_code == 422
    assert "huge.png has 100 megapixels" in answer.json()["detail"]


def test_her_photographs_go_with_her(client):
    """They are in what is kept of her, and are erased with her."""
    dress, visit = visited(client)
    number = send(client, visit, a_picture((320, 240))).json()
    person = client.get(f"/api/commissions/{dress}").json()["person"]
    with zipfile.ZipFile(BytesIO(client.get(f"/api/people/{person['id']}/everything.zip").content)) as archive:
        assert archive.read(f"photographs/{number}.jpg").startswith(b"\xff\xd8")
    client.post(f"/api/people/{person['id']}/erase", json={"name": person["name"]})
    assert client.get(f"/api/photographs/{number}").status_code == 404


def test_what_is_in_her_block_is_put_into_a_dress_drafted_later(client):
    dress = begun(client)
    person = client.get(f"/api/commissions/{dress}").json()["person"]["id"]
    for ago in (14, 7, 0):
        at = visit(client, dress, ago)
        said = {"seen": "neck_stands_off", "amount": 6.0, "taken": "neck_wedge", "over_version": 1}
        client.post(f"/api/fittings/{at}/notes", json=said)
    assert client.post(f"/api/people/{person}/block", json={"seen": "neck_stands_off"}).status_code == 204
    assert len(client.get(f"/api/people/{person}/block").json()) == 1
    later = client.post("/api/commissions", json={"title": "Later", "person": "Tilde"}).json()["recipe"]
    assert client.post(f"/api/people/{person}/block/into-dress", json=later).status_code == 409
    drafted = {**later, "figure": DRESS["figure"], "bodice": {"kind": "two_lengths"}}
    made = client.post(f"/api/people/{person}/block/into-dress", json=drafted)
    assert made.status_code == 200, made.text
    assert [step["kind"] for step in made.json()["steps"]] == ["wedge"]
    again = client.post(f"/api/people/{person}/block/into-dress", json={**drafted, **made.json()})
    assert "has all of it already" in again.json()["detail"]
