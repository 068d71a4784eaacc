"""Where the program answers other machines, nobody comes in without the passphrase."""

import json
import subprocess
import sys

import pytest
from argon2 import PasswordHasher
from fastapi.testclient import TestClient

from gentle_hem.api.app import create_app
from gentle_hem.api.door import NOT_ENCRYPTED, TRIES, WITHIN, Door, Place, TooShort, choose_passphrase
from gentle_hem.store import Store
from server import filled

HERE = "192.0.2.7"
"""An address of the documentation range (RFC 5737): nobody's."""

PASSPHRASE = "hem tide lantern salt"


@pytest.fixture(scope="module")
def records(tmp_path_factory):
    folder = tmp_path_factory.mktemp("studio")
    filled(folder).close()
    choose_passphrase(folder, PASSPHRASE)
    return folder


@pytest.fixture
def app(records):
    store = Store(records)
    yield create_app(store, place=Place(HERE))
    store.close()


@pytest.fixture
def client(app):
    return TestClient(app, base_url=f"http://{HERE}", follow_redirects=False)


def come_in(client, passphrase=PASSPHRASE):
    return client.post("/enter", data={"passphrase": passphrase})


def test_every_route_is_closed_without_the_passphrase(app, client):
    """Every published route and every way of asking it, the page, the styles and what does not exist."""
    tried = 0
    for path, methods in create_app(Store.__new__(Store)).openapi()["paths"].items():
        for method in methods:
            answer = client.request(method, path.replace("{", "").replace("}", ""))
            assert answer.status_code == 401, (method, path)
            assert answer.headers["content-type"] == "application/problem+json"
            tried += 1
    assert tried > 80
    for path in ("/", "/assets/index.js", "/commission/1", "/enter", "/api/none", "/api/health"):
        answer = client.get(path)
        assert answer.status_code == 401, path
        assert "Harbour" not in answer.text
    assert "Passphrase" in client.get("/").text
    assert NOT_ENCRYPTED.split(":")[0] in client.get("/").text


def test_the_passphrase_opens_and_the_cookie_is_kept_from_scripts_and_other_pages(client):
    answer = come_in(client)
    assert answer.status_code == 303
    said = answer.headers["set-cookie"]
    for flag in ("HttpOnly", "SameSite=strict", "Path=/", "Max-Age=43200"):
        assert flag in said
    assert "Secure" not in said, "the address is asked without TLS"
    assert client.get("/api/health").json()["state"] == "ready"
    assert client.get("/api/studio").json()["has_door"] is True
    assert client.get("/api/studio").json()["warning"] == NOT_ENCRYPTED
    client.post("/leave")
    assert client.get("/api/health").status_code == 401


def test_behind_tls_the_cookie_goes_over_tls_alone(records):
    store = Store(records)
    app = create_app(store, place=Place(name="studio.example"))
    client = TestClient(app, base_url="https://studio.example", follow_redirects=False)
    answer = come_in(client)
    assert "Secure" in answer.headers["set-cookie"]
    assert client.get("/api/studio", headers={"origin": "https://studio.example"}).json()["warning"] == ""
    assert client.get("/api/studio", headers={"origin": "https://elsewhere.example"}).status_code == 403
    store.close()


@pytest.mark.parametrize("carried", ["", "x", "a.b.c", "0123456789abcdef.aAaAaA.aaaaaaaaaaaaaaaaaaaaaaaaaaa"])
def test_a_made_up_cookie_opens_nothing(client, carried):
    client.cookies.set("gentle-hem", carried)
    assert client.get("/api/desk").status_code == 401


def test_a_cookie_of_another_passphrase_opens_nothing(records, client):
    come_in(client)
    choose_passphrase(records, PASSPHRASE)  # the same words, chosen anew
    store = Store(records)
    later = TestClient(create_app(store, place=Place(HERE)), base_url=f"http://{HERE}", cookies=dict(client.cookies))
    assert later.get("/api/desk").status_code == 401
    store.close()


def test_wrong_tries_are_slowed_down_the_right_one_too(client):
    answers = [come_in(client, f"wrong {k}") for k in range(TRIES)]
    assert [one.status_code for one in answers] == [401] * (TRIES - 1) + [429]
    refused = come_in(client)
    assert refused.status_code == 429
    assert 0 < int(refused.headers["retry-after"]) <= WITHIN
    assert "Try again in" in refused.text


def test_after_a_minute_it_may_be_tried_again_and_others_were_never_kept_out(records):
    moment = [1000.0]
    door = Door(records, now=lambda: moment[0])
    for _ in range(TRIES):
        assert not door.opens("192.0.2.1", "no")
    assert door.wait("192.0.2.1") == WITHIN
    assert not door.opens("192.0.2.1", PASSPHRASE)
    assert door.opens("192.0.2.2", PASSPHRASE)
    moment[0] += WITHIN + 1
    assert door.opens("192.0.2.1", PASSPHRASE)


def test_many_addresses_together_are_slowed_down_too(records):
    moment = [1000.0]
    door = Door(records, now=lambda: moment[0])
    for k in range(30):
        door.opens(f"192.0.2.{k}", "no")
    assert door.wait("192.0.2.200") > 0


def test_a_pass_ends_by_itself(records, monkeypatch):
    door = Door(records)
    carried = door.pass_()
    assert door.lets_in(carried)
    then = door._signer.get_timestamp()
    monkeypatch.setattr(type(door._signer), "get_timestamp", lambda _: then + 12 * 3600 + 1)
    assert not door.lets_in(carried)


def test_the_passphrase_is_kept_as_a_hash_no_one_else_may_read(records):
    """Argon2id (RFC 9106)."""
    file = records / "passphrase.json"
    kept = json.loads(file.read_text())
    assert kept["hash"].startswith("$argon2id$")
    assert PasswordHasher().verify(kept["hash"], PASSPHRASE)
    assert PASSPHRASE not in file.read_text()
    assert file.stat().st_mode & 0o077 == 0


@pytest.mark.parametrize("short", ["", "seven77", "x" * 201])
def test_a_passphrase_that_is_easily_guessed_is_refused(records, short):
    with pytest.raises(TooShort, match="8 to 200 letters"):
        choose_passphrase(records, short)


@pytest.mark.parametrize(
    ("place", "host", "known"),
    [
        (Place(), "127.0.0.1", True),
        (Place(), "192.0.2.7", False),
        (Place("0.0.0.0"), "192.0.2.7", True),
        (Place("0.0.0.0"), "elsewhere.example", False),
        (Place(HERE), "192.0.2.8", False),
        (Place(HERE), "localhost", True),
        (Place(name="studio.example"), "studio.example", True),
        (Place(name="studio.example"), "192.0.2.7", False),
    ],
)
def test_it_answers_under_its_own_names_alone(place, host, known):
    """A name of somebody else's that leads here (DNS rebinding) is not answered."""
    assert place.knows(host) is known


def cli(*words, typed=""):
    return subprocess.run(
        [sys.executable, "-m", "gentle_hem.cli", *words], input=typed, capture_output=True, text=True, timeout=60
    )


def test_answering_other_machines_demands_a_passphrase(tmp_path):
    refused = cli("run", "--bind", "0.0.0.0", "--port", "8797", "--data", str(tmp_path / "own"))
    assert refused.returncode == 2
    assert "a passphrase is needed" in refused.stderr
    assert cli("passphrase", "--data", str(tmp_path / "own"), typed="one thing\nanother\n").returncode == 2
    kept = cli("passphrase", "--data", str(tmp_path / "own"), typed=f"{PASSPHRASE}\n{PASSPHRASE}\n")
    assert kept.returncode == 0, kept.stderr
    assert Door(tmp_path / "own").opens("", PASSPHRASE)


@pytest.mark.parametrize("address", ["nowhere.invalid", HERE])
def test_an_address_that_is_not_this_machines_is_said_to_be_none(tmp_path, address):
    refused = cli("run", "--bind", address, "--data", str(tmp_path))
    assert refused.returncode == 2
    assert "no address of this machine" in refused.stderr
