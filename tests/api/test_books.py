"""Costs, quotes, notes of cloths, sheets to fill in by hand, versions laid over each other, the practice bench."""

from io import BytesIO

import pdfplumber
import pytest
from fastapi.testclient import TestClient

from gentle_hem.api.app import create_app
from server import filled

SUIT, SCHOOL = "Harbour master's suit dress", "Schoolmistress's dress"


@pytest.fixture(scope="module")
def client(tmp_path_factory):
    store = filled(tmp_path_factory.mktemp("studio"))
    with TestClient(create_app(store), base_url="http://127.0.0.1") as client:
        yield client


def dress(client, title):
    rows = client.get("/api/desk?most=200").json()["rows"]
    return next(row["id"] for row in rows if row["title"] == title)


def written(answer):
    assert answer.status_code == 200, answer.text
    assert answer.headers["content-type"] == "application/pdf"
    with pdfplumber.open(BytesIO(answer.content)) as pdf:
        return "\n".join(page.extract_text() for page in pdf.pages)


def test_costs_are_the_lay_the_notions_and_the_hours(client):
    """The demo's suit dress: its cloth as the lay says, 4.60 and 0.40, the plan's hours at 24, and 14; and 8 %."""
    number = dress(client, SUIT)
    recipe = client.get(f"/api/commissions/{number}").json()["recipe"]
    laid = client.post(f"/api/commissions/{number}/lays", json={"recipe": recipe, "asked": []}).json()
    plan = client.post(f"/api/commissions/{number}/plan", json=recipe).json()
    made = client.get(f"/api/commissions/{number}/costs").json()
    lines = {line["what"]: line for line in made["lines"]}
    cloth = sum(float(lay["cost"]) for lay in laid if lay["cost"])
    hours = sum(one["minutes"] for one in plan["operations"]) / 60
    assert float(lines["Harbour wool"]["amount"]) == pytest.approx(cloth)
    together = cloth + 4.6 + 0.4 + hours * 24 + 14
    assert float(made["together"]) == pytest.approx(together, abs=0.01)
    assert float(made["total"]) == pytest.approx(together * 1.08, abs=0.02)
    assert made["unpriced"] == 0


def test_what_is_said_of_costs_is_kept_and_the_rate_is_remembered(client):
    number = dress(client, "Sundress")
    before = client.get(f"/api/commissions/{number}/costs").json()
    assert before["said"]["rate"] == 24.0, "as in the dress whose costs were last said"
    said = {**before["said"], "rate": 30, "hours": 4, "extras": [{"what": "Buttonhole silk", "amount": 3.5}]}
    made = client.put(f"/api/commissions/{number}/costs", json=said).json()
    assert {line["what"]: line["amount"] for line in made["lines"]}["Work"] == "120.00"
    assert client.get(f"/api/commissions/{number}/costs").json() == made
    assert client.get(f"/api/commissions/{dress(client, 'Ball gown')}/costs").json()["said"]["rate"] == 30


@pytest.mark.parametrize(
    ("said", "field"),
    [
        ({"rate": -1}, "rate"),
        ({"hours": 1e9}, "hours"),
        ({"extras": [{"what": " ", "amount": 1}]}, "extras"),
        ({"prices": {"zip": -3}}, "prices"),
        ({"adds": 900}, "adds"),
    ],
)
def test_costs_that_cannot_be_are_refused_by_name(client, said, field):
    answer = client.put(f"/api/commissions/{dress(client, 'Kite dress')}/costs", json=said)
    assert answer.status_code == 422
    assert field in answer.json()["errors"][0]["field"]


def test_a_quote_says_what_for_whom_by_when_and_its_lines_make_its_sum(client):
    number = dress(client, "Lighthouse keeper's jumpsuit")
    text = written(client.get(f"/api/commissions/{number}/quote.pdf"))
    made = client.get(f"/api/commissions/{number}/costs").json()
    assert "Lighthouse keeper's jumpsuit" in text
    assert "for Pip Larkham" in text
    assert "to be ready on" in text
    amounts = {}
    for line in text.splitlines():
        words = line.rsplit(" ", 1)
        if words[0] in ("Cloth", "Notions", "Work", "Together"):
            amounts[words[0]] = float(words[1])
    assert amounts["Together"] == float(made["total"])
    assert amounts["Cloth"] + amounts["Notions"] + amounts["Work"] == pytest.approx(amounts["Together"], abs=0.02)


def test_a_quote_names_what_has_no_price_yet(client):
    text = written(client.get(f"/api/commissions/{dress(client, 'Mermaid finale gown')}/quote.pdf"))
    assert "Not in it yet: Zip, Hook and eye." in text


def test_the_clients_page_says_what_is_agreed_of_a_dress(client):
    number = dress(client, "Lighthouse keeper's jumpsuit")
    answer = client.get(f"/api/commissions/{number}/client-page.pdf")
    text = written(answer)
    assert "for Pip Larkham" in text
    assert "to be ready on" in text
    assert "above the floor" in text
    assert "Pip" in answer.headers["content-disposition"]
    assert client.get("/api/commissions/99999/client-page.pdf").status_code == 404


def test_the_cut_sheet_says_how_much_of_each_cloth_is_bought_as_it_is_laid(client):
    number = dress(client, "Lighthouse keeper's jumpsuit")
    text = written(client.get(f"/api/commissions/{number}/files/cut-sheet.pdf"))
    made = client.get(f"/api/commissions/{number}/costs").json()
    laid = [line["working"].split(" at ")[0] for line in made["lines"] if line["sort"] == "cloth"]
    assert laid
    assert all(length in text for length in laid)
    assert "not laid yet" not in text


def cloth(client, name):
    return next(one["id"] for one in client.get("/api/cloths").json() if one["name"] == name)


def test_the_demo_knows_twelve_things_of_its_cloths(client):
    cloths = client.get("/api/cloths").json()
    notes = [note for one in cloths for note in client.get(f"/api/cloths/{one['id']}/notes").json()]
    assert len(notes) == 12
    assert {note["kind"] for note in notes} == {
        "shrinkage", "growth on the bias", "fraying", "marking", "pressing", "something else"
    }  # fmt: skip


def test_what_is_learnt_of_a_cloth_comes_back_at_the_next_dress_cut_from_it(client):
    """A metre of poplin comes back as 95 cm: the schoolmistress's dress is told, in inches, and can take it."""
    number = cloth(client, "Slate poplin")
    said = {"kind": "shrinkage", "on_day": "2026-11-20", "before": "1 m", "after": "95"}
    kept = client.post(f"/api/cloths/{number}/notes", json=said)
    assert kept.status_code == 201, kept.text
    assert kept.json()["said"] == "100.0 cm before, 95.0 cm after: 5 %"
    recipe = client.get(f"/api/commissions/{dress(client, SCHOOL)}").json()["recipe"]
    (one,) = [a for a in client.post("/api/cloth-advice", json=recipe).json() if a["cloth"] == "Slate poplin"]
    assert one["text"].startswith("It shrank by 5 %: 39 3/8 in before, 37 3/8 in after. The lay reckons with 3 %")
    assert one["changes"] == {"cloths.outer.shrinks": 5.0}
    client.delete(f"/api/cloth-notes/{kept.json()['id']}")
    assert client.post("/api/cloth-advice", json=recipe).json() == []


@pytest.mark.parametrize(
    ("said", "why"),
    [
        ({"before": "95", "after": "100"}, "the right way round"),
        ({"before": "wide", "after": "100"}, "wide"),
        ({"before": "", "after": "100"}, "before and after"),
        ({"before": "100", "after": "0"}, "more than nothing"),
    ],
)
def test_a_note_that_cannot_be_is_refused_in_a_sentence(client, said, why):
    number = cloth(client, "Slate poplin")
    body = {"kind": "shrinkage", "on_day": "2026-11-20", **said}
    answer = client.post(f"/api/cloths/{number}/notes", json=body)
    assert answer.status_code == 422
    assert why in answer.json()["detail"]


def test_a_cloth_that_is_called_otherwise_keeps_what_was_learnt_of_it(client):
    number = cloth(client, "Reed stripe")
    before = client.get(f"/api/cloths/{number}/notes").json()
    body = {"name": "Rush stripe", "cloth": {"width": "138cm"}, "in_the_place_of": number}
    client.put("/api/cloths", json=body)
    assert client.get(f"/api/cloths/{cloth(client, 'Rush stripe')}/notes").json() == before != []


def test_a_measuring_sheet_marks_what_her_dresses_ask_for(client):
    """The player who sent only half her measures is asked for those her dresses estimate."""
    people = {one["name"]: one["id"] for one in client.get("/api/people").json()}
    text = written(client.get(f"/api/people/{people['Odette Fairweather']}/measuring-sheet.pdf"))
    assert "Measures of Odette Fairweather" in text
    assert "★ front waist length" in text
    assert "★ waist girth" not in text
    assert "Lengths in centimetres" in text
    blank = written(client.get("/api/measuring-sheet.pdf?unit=in"))
    assert "Lengths in inches" in blank
    assert "★" not in blank
    labels = {one["label"] for tab in client.get("/api/measures").json() for one in tab["measures"]}
    assert len(labels) > 35
    assert all(label in blank for label in labels)


def test_an_appointment_sheet_says_when_what_was_seen_and_what_is_sewn_till_then(client):
    text = written(client.get(f"/api/commissions/{dress(client, SUIT)}/appointment.pdf"))
    assert "Bettany Oxley; on a day to be agreed" in text
    assert "stands a finger off when she breathes in" in text
    assert "Before she comes" in text
    agreed = written(client.get(f"/api/commissions/{dress(client, 'Ball gown')}/appointment.pdf"))
    assert "at 10:00" in agreed
    done = written(client.get(f"/api/commissions/{dress(client, 'Kite dress')}/appointment.pdf"))
    assert "Cut from the outer cloth" not in done, "it is cut already"


def test_two_versions_lie_over_each_other(client):
    place = f"/api/commissions/{dress(client, SUIT)}"
    first = client.get(f"{place}/versions/1").json()
    now = client.get(place).json()["recipe"]
    made = client.post("/api/overlaid", json={"before": first, "after": now}).json()
    front = next(one for one in made["pieces"] if one["name"] == "skirt front")
    assert {"name": "centre front", "before": "62.0 cm", "now": "60.5 cm", "difference": "-1.5 cm"} in front["edges"]
    assert front["before"][0].startswith("M")
    assert client.post("/api/overlaid", json={"before": now, "after": now}).json()["pieces"] == []


def test_a_problem_is_asked_and_its_answer_looked_at(client):
    made = client.post("/api/practice/next", json={"number": 7}).json()
    assert (made["kind"], made["level"]) == ("radius", 1)
    asked = {name: made[name] for name in ("kind", "level", "number")}
    wrong = client.post("/api/practice/answer", json={**asked, "typed": "1"}).json()
    assert not wrong["right"]
    right = client.post("/api/practice/answer", json={**asked, "typed": wrong["answer"]}).json()
    assert right["right"]
    assert "÷ 6.2832" in right["workings"][-1]
    unread = client.post("/api/practice/answer", json={**asked, "typed": "wide"})
    assert unread.status_code == 422
    answers = [{"kind": "radius", "right": True}] * 2
    assert client.post("/api/practice/next", json={"number": 7, "answers": answers}).json()["kind"] == "cut radius"


def test_another_version_is_printed_beside_the_one_that_is_asked_for(client):
    number = dress(client, "Kite dress")
    kept = client.get(f"/api/commissions/{number}").json()
    recipe = kept["recipe"]
    recipe["lower"]["length"] = 500
    said = {"recipe": recipe, "from_version": kept["version"]}
    assert client.post(f"/api/commissions/{number}/versions", json=said).status_code == 201
    newest = kept["version"] + 1
    text = written(client.get(f"/api/commissions/{number}/files/pattern.pdf?beside={kept['version']}"))
    assert f"skirt front: cut 1 on the fold, cloth, version {newest}" in text
    assert f"skirt front: cut 1 on the fold, cloth, version {kept['version']}" in text
    alone = written(client.get(f"/api/commissions/{number}/files/pattern.pdf?beside={newest}"))
    assert "cloth, version" not in alone
    assert client.get(f"/api/commissions/{number}/files/pattern.pdf?beside=77").status_code == 404
