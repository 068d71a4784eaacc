"""The benchmarks: how quick the program is on this machine. They are printed, not judged."""

from __future__ import annotations

import itertools
import json
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path
from statistics import median

from sqlalchemy import insert, select

from gentle_hem.core.kept_stages import forget
from gentle_hem.core.lower.circle import CircleSkirt
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.steps.contour import Wedge, ZipContour
from gentle_hem.demo.studio import fill, recipe_of, works
from gentle_hem.store import Store
from gentle_hem.store.models import Commission, RecipeVersion, Slip
from gentle_hem.store.slips import program

ROUNDS = 300
EXAMPLES = Path(__file__).parents[2] / "examples"
PORT = 8799
CHROMIUM = "/usr/bin/chromium"
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-component-update",
         "--disable-sync", "--no-first-run"]  # fmt: skip


def timed(run: Callable[[], object], rounds: int) -> list[float]:
    """Milliseconds of each round, after one that is not counted."""
    run()
    taken = []
    for _ in range(rounds):
        begin = time.perf_counter()
        run()
        taken.append((time.perf_counter() - begin) * 1000)
    return sorted(taken)


def from_nothing(recipe: Recipe) -> Callable[[], object]:
    """A garment made with nothing kept of the ones before."""

    def made() -> object:
        forget()
        return make_up(recipe)

    return made


def typed_below(recipe: Recipe) -> Callable[[], object]:
    """A garment whose lower part is typed over, again and again, by a millimetre."""
    lengths = itertools.cycle(range(20))

    def made() -> object:
        hangs = recipe.lower.hangs + next(lengths)
        return make_up(recipe.model_copy(update={"lower": recipe.lower.model_copy(update={"length": hangs})}))

    return made


def row(name: str, taken: list[float], goal: str) -> None:
    p95 = taken[min(len(taken) - 1, int(len(taken) * 0.95))]
    print(f"{name:<46} {median(taken):>9.2f} {p95:>9.2f}   {goal}")


def main() -> None:
    """Print the table."""
    print(f"{'':<46} {'median ms':>9} {'p95 ms':>9}   goal")
    demo = {work.title: recipe_of(player, work) for player, work in works()}
    gown, mermaid = demo["Ball gown"], demo["Mermaid finale gown"]
    princess = mermaid.model_copy(
        update={
            "steps": (ZipContour(), Wedge(amount=12.7), *mermaid.steps), "lower": CircleSkirt(sweep=360, length=700),
            "trims": (),
        }
    )  # fmt: skip
    row("make_up of a full-circle dress", timed(from_nothing(gown), ROUNDS), "p95 under 10 ms")
    row("make_up of a contoured princess and circle", timed(from_nothing(princess), ROUNDS), "p95 under 20 ms")
    example = Recipe.model_validate_json((EXAMPLES / "mermaid-gown.recipe.json").read_text())
    row("make_up of the mermaid example", timed(from_nothing(example), ROUNDS), "p95 under 20 ms")
    blouse = Recipe.model_validate_json((EXAMPLES / "peplum-under-blouse.recipe.json").read_text())
    row("make_up of the longest combination", timed(from_nothing(blouse), ROUNDS), "p95 under 40 ms")
    laced = Recipe.model_validate_json((EXAMPLES / "laced-gathered.recipe.json").read_text())
    row("make_up of a laced dress", timed(from_nothing(laced), ROUNDS), "")
    row("the same, typed over below the waist", timed(typed_below(laced), ROUNDS), "")
    row("make_up of the heaviest demo gown", timed(from_nothing(mermaid), ROUNDS), "p95 under 40 ms")
    with tempfile.TemporaryDirectory() as folder:
        _measure_desk(Path(folder))
    with tempfile.TemporaryDirectory() as folder:
        store = Store(Path(folder))
        fill(store)
        store.close()
        starts = []
        for _ in range(3):
            begin = time.perf_counter()
            server = _start(folder)
            starts.append((time.perf_counter() - begin) * 1000)
            if len(starts) < 3:
                _stop(server)
        row("start of the server until it answers", sorted(starts), "under 1500 ms")
        try:
            _measure_api(gown.model_dump(mode="json"))
            _measure_keys()
        finally:
            _stop(server)


MANY = 5000


def _measure_desk(folder: Path) -> None:
    """The first page of a desk of 5,000 commissions, each with two versions and its slip."""
    import httpx

    store = Store(folder)
    fill(store)
    with store.writing() as session:
        recipe = session.scalars(select(RecipeVersion)).first()
        assert recipe is not None
        now = datetime.now(UTC)
        session.execute(
            insert(Commission),
            [{"id": k, "person_id": 1 + k % 6, "title": f"Dress {k}", "occasion": "", "version": 2, "worked_at": now}
             for k in range(100, 100 + MANY)],
        )  # fmt: skip
        session.execute(
            insert(RecipeVersion),
            [{"commission_id": k, "number": number, "recipe": recipe.recipe}
             for k in range(100, 100 + MANY) for number in (1, 2)],
        )  # fmt: skip
        session.execute(
            insert(Slip),
            [{"commission_id": k, "version": 2, "program": program(), "unit": "cm", "summary": "A dress", "stops": 0,
              "warnings": 1, "trouble": "The waist seam does not meet.", "unreadable": ""}
             for k in range(100, 100 + MANY)],
        )  # fmt: skip
    store.close()
    server = _start(str(folder))
    try:
        with httpx.Client(base_url=f"http://127.0.0.1:{PORT}") as client:
            taken = timed(lambda: client.get("/api/desk").raise_for_status(), ROUNDS)
        row(f"first page of a desk of {MANY} commissions", taken, "under 50 ms")
    finally:
        _stop(server)


def _start(folder: str) -> subprocess.Popen[str]:
    command = [sys.executable, "-m", "gentle_hem.cli", "run", "--port", str(PORT), "--data", folder]
    server = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    assert server.stdout is not None
    server.stdout.readline()
    return server


def _stop(server: subprocess.Popen[str]) -> None:
    server.terminate()
    server.wait()


def _measure_api(recipe: dict[str, object]) -> None:
    import httpx

    body = json.dumps(recipe)
    headers = {"content-type": "application/json"}
    with httpx.Client(base_url=f"http://127.0.0.1:{PORT}") as client:
        taken = timed(lambda: client.post("/api/make-up", content=body, headers=headers), ROUNDS)
    row("POST /api/make-up round trip", taken, "under 25 ms")


def _measure_keys() -> None:
    """From a key press in a length to the redrawn sheet, timed inside the page."""
    from playwright.sync_api import sync_playwright

    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"http://127.0.0.1:{PORT}")
        page.get_by_role("heading", name="Ball gown").click()
        page.locator('[data-word="lower.length"]').click()
        page.evaluate(
            """() => {
              window.redrawn = [];
              let pressed = 0;
              window.addEventListener('keydown', () => { pressed = performance.now(); }, true);
              new MutationObserver(() => {
                if (pressed) requestAnimationFrame(() => {
                  if (pressed) window.redrawn.push(performance.now() - pressed);
                  pressed = 0;
                });
              }).observe(document.querySelector('[data-testid=sheet]'),
                         { subtree: true, attributes: true, attributeFilter: ['d'] });
            }"""
        )
        for _ in range(40):
            page.keyboard.press("ArrowUp")
            page.wait_for_timeout(150)
        taken = sorted(page.evaluate("window.redrawn"))
        browser.close()
    row("key press to redrawn sheet in the browser", taken, "under 100 ms")
