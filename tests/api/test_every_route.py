"""The whole published API called with generated requests: never a fault, and answers as it publishes them.

schemathesis, a general-purpose library, generates the calls from the OpenAPI description.
"""

import json
from copy import deepcopy

import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, Phase, given, seed, settings
from hypothesis import strategies as st
from hypothesis.stateful import Bundle, RuleBasedStateMachine, rule, run_state_machine_as_test

from conftest import a_recipe, drafted_recipe
from gentle_hem.api.app import create_app
from gentle_hem.store import Store
from gentle_hem.store.backup import check_backup
from long import examples
from server import filled

CALLS = examples(2_500, 50_000)
"""How many calls are made over all routes."""

RECIPES = [
    a_recipe().model_dump(mode="json"), drafted_recipe("two_lengths").model_dump(mode="json"),
    drafted_recipe("proportional").model_dump(mode="json"),
]  # fmt: skip


@pytest.fixture(scope="module")
def app(tmp_path_factory):
    store = filled(tmp_path_factory.mktemp("fuzz"))
    return create_app(store, demo=True)


@pytest.fixture(scope="module")
def client(app):
    with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
        yield client


SCHEMA = schemathesis.openapi.from_dict(create_app(Store.__new__(Store)).openapi())
OPERATIONS = [operation.ok() for operation in SCHEMA.get_all_operations()]
SLOW = {"/api/backup": 5, "/api/backup/bring-back": 5, "/api/blocks/read": 8, "/api/figures/from-csv": 8}
"""Routes that start a process or copy a file are called less often."""


def _varies(operation):
    """Whether there is anything about a call that can be varied."""
    said = SCHEMA.raw_schema["paths"][operation.path][operation.method]
    return bool(said.get("parameters") or said.get("requestBody"))


VARIED = [one for one in OPERATIONS if one.path not in SLOW and _varies(one)]


def calls(operation):
    """How often a route is called, so that all of them together make CALLS."""
    if operation.path in SLOW:
        return SLOW[operation.path]
    return (CALLS - sum(SLOW.values())) // len(VARIED) + 1 if operation in VARIED else 1


def sent(client, case):
    """A generated case, sent as any client would."""
    asked = case.as_transport_kwargs(base_url="http://127.0.0.1")
    asked.pop("cookies", None)
    asked["url"] = asked["url"].removeprefix("http://127.0.0.1")
    return client.request(**{name: value for name, value in asked.items() if value is not None})


@pytest.mark.parametrize("operation", OPERATIONS, ids=lambda one: f"{one.method} {one.path}")
def test_no_call_is_answered_with_a_fault(client, operation):
    made = 0

    @seed(1)
    @settings(
        max_examples=calls(operation), deadline=None, phases=[Phase.generate], derandomize=False, database=None,
        suppress_health_check=list(HealthCheck),
    )  # fmt: skip
    @given(case=operation.as_strategy())
    def run(case):
        nonlocal made
        made += 1
        answer = sent(client, case)
        assert answer.status_code < 500, (answer.status_code, answer.text[:500])
        if answer.status_code >= 400:
            assert answer.headers["content-type"] == "application/problem+json"
            assert answer.json()["detail"]

    run()
    assert made >= 1


WORDS = [
    "name", "unit", "lower", "lower.length", "lower.sweep", "bodice", "bodice.kind", "trims", "figure.measures",
    "figure.measures.waist_girth", "steps.0.depth", "steps.1.width", "allowances.neck", "join.ease", "remarks",
]  # fmt: skip
VALUES = st.one_of(
    st.none(), st.booleans(), st.integers(-(2**70), 2**70), st.floats(allow_nan=False), st.text(max_size=12),
    st.sampled_from(["24", "1/0", "34 3/4 in", "\ud800", "\x00", "9" * 400, "1e308", "{}", "circle", "gown"]),
    st.dictionaries(st.sampled_from(["kind", "length", "x"]), st.text(max_size=4), max_size=2),
    st.lists(st.just({"kind": "godets"}), max_size=3),
)  # fmt: skip


@settings(max_examples=examples(100, 5_000), deadline=None, suppress_health_check=list(HealthCheck))
@given(
    st.sampled_from(RECIPES),
    st.lists(st.tuples(st.sampled_from(WORDS), VALUES), max_size=4),
    st.sampled_from(["cm", "in"]),
)
def test_whatever_is_typed_over_a_recipe_is_answered(client, recipe, words, unit):
    body = {"recipe": recipe, "typed": [{"path": path, "value": value, "unit": unit} for path, value in words]}
    content = json.dumps(body).encode()
    answer = client.post("/api/bench", content=content, headers={"content-type": "application/json"})
    assert answer.status_code in (200, 422), answer.text[:300]
    if answer.status_code == 200:
        codes = {finding["code"] for finding in answer.json()["screen"]["findings"]}
        assert "fault-of-the-program" not in codes


class Studio(RuleBasedStateMachine):
    """Somebody working: dresses begun, saved from the newest or an older version, opened, listed and backed up."""

    client = None
    folder = None
    dresses = Bundle("dresses")

    @rule(target=dresses, person=st.sampled_from(["Ada", "Bea ", "Zoë"]), unit=st.sampled_from(["cm", "in"]))
    def begin(self, person, unit):
        made = self.client.post("/api/commissions", json={"title": "Dress", "person": person, "unit": unit})
        assert made.status_code == 201
        return made.json()["id"]

    @rule(dress=dresses, length=st.floats(100, 900), back=st.integers(0, 2))
    def save(self, dress, length, back):
        opened = self.client.get(f"/api/commissions/{dress}").json()
        recipe = deepcopy(opened["recipe"])
        recipe["lower"]["length"] = length
        began = max(opened["version"] - back, 1)
        answer = self.client.post(f"/api/commissions/{dress}/versions", json={"recipe": recipe, "from_version": began})
        same = recipe == opened["recipe"]
        assert answer.status_code == (201 if began == opened["version"] or same else 409)
        now = self.client.get(f"/api/commissions/{dress}").json()
        assert now["version"] == (answer.json()["version"] if answer.status_code == 201 else opened["version"])

    @rule(dress=dresses)
    def look(self, dress):
        listed = self.client.get(f"/api/commissions/{dress}/versions").json()
        assert listed["versions"][0]["version"] == listed["total"]
        assert self.client.get(f"/api/commissions/{dress}/files/recipe.json").status_code == 200

    @rule(dress=dresses)
    def is_on_the_desk(self, dress):
        rows = self.client.get("/api/desk?most=200").json()["rows"]
        assert dress in [row["id"] for row in rows]
        assert all(row["looked_at"] for row in rows)

    @rule()
    def back_up(self):
        file = self.folder / "backup.sqlite"
        file.write_bytes(self.client.get("/api/backup").content)
        check_backup(file)


def test_whatever_order_a_studio_works_in(tmp_path):
    Studio.folder = tmp_path
    with TestClient(create_app(Store(tmp_path / "studio")), base_url="http://127.0.0.1") as Studio.client:
        run_state_machine_as_test(
            Studio,
            settings=settings(
                max_examples=examples(8, 80), stateful_step_count=20, deadline=None, derandomize=True,
                suppress_health_check=list(HealthCheck),
            ),
        )  # fmt: skip
