"""The commands: demo, run, backup, restore, test, check, sum, make, bench, client.

Exit codes: 0 done; 2 bad input, with one sentence on stderr; 1 a fault of the program; 3 (of make) files written, but
a stop says that the garment is not ready to cut.
"""

from __future__ import annotations

import argparse
import errno
import gc
import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import threading
from datetime import datetime
from pathlib import Path
from types import FrameType
from typing import TYPE_CHECKING, NoReturn

if __name__ == "__main__":
    gc.disable()  # until it answers: what starting brings in stays, and looking through it costs a tenth of the start

from gentle_hem.core.fault import FAULT
from gentle_hem.core.garment import Garment
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, UnreadableRecipe, read_recipe
from gentle_hem.core.sums import SUMS, SumResult
from gentle_hem.core.sums.sum import SumError, ask
from gentle_hem.core.units import Said, Tape, Unit

if TYPE_CHECKING:
    from gentle_hem.api.door import Place
    from gentle_hem.store import Store

HOME = Path(__file__).resolve().parents[2]
WEB = HOME / "web"
PORT = 8765
OWN = HOME / ".data" / "own"
RECIPE_PAGE = HOME / "docs" / "recipe.md"


class BadInput(Exception):  # noqa: N818  (it is not an error of the program)
    """What was asked cannot be done; the sentence says what was wrong and what is accepted."""


class Parser(argparse.ArgumentParser):
    """argparse, answering in one sentence."""

    def error(self, message: str) -> NoReturn:
        raise BadInput(f"{message[:1].upper()}{message[1:]}.")


BETWEEN_LOOKS = 20_000
"""How many more things there are before it is looked which are used no longer: a make-up makes a few thousand."""


def settle() -> None:
    """What starting brought in stays, and need not be looked through for what is used no longer."""
    gc.freeze()
    gc.set_threshold(BETWEEN_LOOKS, 20, 20)
    gc.enable()


def main(arguments: list[str] | None = None) -> int:
    """Run one command; returns its exit code."""
    given = sys.argv[1:] if arguments is None else arguments
    try:
        if given[:1] == ["test"]:
            return _test(given[1:])
        options = _parser().parse_args(given)
        if options.does not in (_demo, _run):
            settle()
        return int(options.does(options) or 0)
    except BadInput as wrong:
        print(wrong, file=sys.stderr)
        return 2
    except KeyboardInterrupt:  # Ctrl-C: everything has been closed by now
        return 0
    finally:
        gc.enable()


def _parser() -> Parser:
    parser = Parser(prog="hem", description="From a bodice that fits to a dress that meets at the waist.")
    commands = parser.add_subparsers(dest="command", required=True, parser_class=Parser)

    demo = commands.add_parser("demo", help="serve the demo studio, freshly made")
    demo.add_argument("--port", type=int, default=PORT)
    demo.set_defaults(does=_demo)

    run = commands.add_parser("run", help="serve your own records")
    run.add_argument("--port", type=int, default=PORT)
    run.add_argument("--data", type=Path, default=OWN, help="the folder your records are kept in")
    run.add_argument("--bind", default="127.0.0.1", metavar="ADDRESS", help="answer others too; needs a passphrase")
    run.add_argument("--name", default="", help="the name under which a TLS proxy before it is asked")
    run.add_argument("--devices", action="store_true", help="offer the simulated tape and plotter")
    run.set_defaults(does=_run)

    backup = commands.add_parser("backup", help="everything into one file, while the program runs or not")
    backup.add_argument("file", type=Path, metavar="FILE")
    backup.add_argument("--data", type=Path, default=OWN, help="the folder your records are kept in")
    backup.set_defaults(does=_backup)

    restore = commands.add_parser("restore", help="a backup brought back; what it replaces is kept")
    restore.add_argument("file", type=Path, metavar="FILE")
    restore.add_argument("--data", type=Path, default=OWN, help="the folder your records are kept in")
    restore.set_defaults(does=_restore)

    passphrase = commands.add_parser("passphrase", help="choose the passphrase that other machines are asked for")
    passphrase.add_argument("--data", type=Path, default=OWN, help="the folder your records are kept in")
    passphrase.set_defaults(does=_passphrase)

    commands.add_parser("test", help="run all tests (takes pytest's arguments; --long adds the long ones)")

    check = commands.add_parser("check", help="lint, types, import rules and formatting")
    check.set_defaults(does=_check)

    one = commands.add_parser("sum", help="one calculation with its workings")
    one.add_argument("name", help=", ".join(SUMS))
    one.add_argument("inputs", nargs="*", metavar="key=value")
    one.add_argument("--json", action="store_true")
    one.add_argument("--unit", choices=["in", "cm"], help="the unit of bare numbers, and of the answer")
    one.add_argument("--mark", type=int, choices=[8, 16], default=8, help="read inches to eighths or sixteenths")
    one.set_defaults(does=_sum)

    make = commands.add_parser("make", help="recipes to files")
    make.add_argument("files", type=Path, nargs="+", metavar="FILE.recipe.json")
    make.add_argument("--out", type=Path, required=True, metavar="DIR")
    make.add_argument("--format", default="json,svg,dxf,pdf,csv")
    make.add_argument("--paper", choices=["a4", "letter", "a3", "legal", "a2", "a1", "a0", "roll"], default="a4")
    make.set_defaults(does=_make)

    bench = commands.add_parser("bench", help="the benchmarks, as a table")
    bench.set_defaults(does=_bench)

    catalogue = commands.add_parser("catalogue", help="every sentence of the core and the interface, for a translator")
    catalogue.add_argument("--out", type=Path, required=True, metavar="FILE.pot")
    catalogue.set_defaults(does=_catalogue)

    client = commands.add_parser("client", help="write the interface's generated API types and docs/recipe.md anew")
    client.set_defaults(does=_client)
    return parser


def _demo(options: argparse.Namespace) -> None:
    from gentle_hem.demo import fill

    _check_port(options.port)
    folder = HOME / ".data" / f"demo-{options.port}"
    shutil.rmtree(folder, ignore_errors=True)
    store = _opened(folder)
    fill(store)
    _serve(store, options.port, demo=True)


def _run(options: argparse.Namespace) -> None:
    _check_port(options.port, options.bind)
    store = _opened(options.data)
    from gentle_hem.api.door import NOT_ENCRYPTED, Door, Place

    place = Place(options.bind, options.name)
    if not place.is_home:
        if not Door(options.data).has_passphrase:
            store.close()
            raise BadInput(
                f"To answer other machines a passphrase is needed: choose one with ./hem passphrase --data "
                f'"{options.data}". Without --bind and --name this machine alone is answered, and none is needed.'
            )
        if not options.name:
            print(NOT_ENCRYPTED, file=sys.stderr)
    _serve(store, options.port, devices=options.devices, place=place)


def _passphrase(options: argparse.Namespace) -> None:
    from getpass import getpass

    from gentle_hem.api.door import TooShort, choose_passphrase

    def ask(what: str) -> str:
        return getpass(what) if sys.stdin.isatty() else sys.stdin.readline().rstrip("\n")

    chosen = ask("Passphrase: ")
    if ask("The same again: ") != chosen:
        raise BadInput("The two are not the same; nothing was changed.")
    _opened(options.data).close()  # the folder is made, and the maker's alone
    try:
        choose_passphrase(options.data, chosen)
    except TooShort as wrong:
        raise BadInput(str(wrong)) from None
    print("The passphrase is kept. Whoever was in must type it anew once the program is started again.")


def _opened(folder: Path) -> Store:
    """The records in a folder; BadInput with one sentence when they cannot be opened."""
    from gentle_hem.store import Store, StoreTrouble

    try:
        return Store(folder)
    except StoreTrouble as trouble:
        raise BadInput(str(trouble)) from None


def _backup(options: argparse.Namespace) -> None:
    from gentle_hem.store.backup import FILE_NAME, back_up
    from gentle_hem.store.trouble import StoreTrouble

    records = options.data / FILE_NAME
    if not records.exists():
        raise BadInput(f"There are no records in {options.data}; name their folder with --data.")
    try:
        back_up(records, options.file)
    except StoreTrouble as trouble:
        raise BadInput(str(trouble)) from None
    print(f"Everything is in {options.file}.")


def _restore(options: argparse.Namespace) -> None:
    from gentle_hem.store.backup import restore
    from gentle_hem.store.trouble import StoreTrouble

    try:
        kept = restore(options.file, options.data, datetime.now())
    except StoreTrouble as trouble:
        raise BadInput(str(trouble)) from None
    print(f"Restored from {options.file}." + (f" What it replaced is kept in {kept}." if kept else ""))


def _check_port(port: int, bind: str = "127.0.0.1") -> None:
    if not 1 <= port <= 65535:
        raise BadInput(f"Port {port} does not exist; 1 to 65535 is accepted.")
    kind = socket.AF_INET6 if ":" in bind else socket.AF_INET
    with socket.socket(kind) as trial:
        trial.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            trial.bind((bind, port))
        except OSError as error:
            if error.errno == errno.EADDRNOTAVAIL or isinstance(error, socket.gaierror):
                raise BadInput(
                    f"{bind} is no address of this machine; 0.0.0.0 answers under every one it has."
                ) from None
            raise BadInput(f"Port {port} is taken by another program; name another with --port.") from None


def _serve(
    store: Store, port: int, *, demo: bool = False, devices: bool | None = None, place: Place | None = None
) -> None:
    """Answer until Ctrl-C, a closed terminal or a polite end; then everything is folded into the one file."""
    import uvicorn

    from gentle_hem.api.app import create_app
    from gentle_hem.api.door import HOMELY

    spoken, place = os.environ.get("GENTLE_HEM_LANGUAGE"), place or HOMELY
    dist = WEB / (f"dist-{Path(spoken).stem}" if spoken else "dist")
    interface = dist if (dist / "index.html").exists() else None
    app = create_app(store, interface, demo, devices=devices, place=place)

    shown = f"[{place.bind}]" if ":" in place.bind else place.bind

    class Server(uvicorn.Server):
        """Says where it answers once it does, and does not wait for those who watch a search when it is to end."""

        async def startup(self, sockets: list[socket.socket] | None = None) -> None:
            await super().startup(sockets)
            if self.started:
                print(f"Gentle Hem answers at http://{shown}:{port}", flush=True)

        def handle_exit(self, sig: int, frame: FrameType | None) -> None:
            threading.Thread(target=app.state.laying_room.close, name="closing", daemon=True).start()
            super().handle_exit(sig, frame)

    config = uvicorn.Config(
        app, host=place.bind, port=port, log_level="warning", ws="none", timeout_graceful_shutdown=5
    )
    server = Server(config)
    signal.signal(signal.SIGHUP, server.handle_exit)
    settle()
    server.run()
    if not server.started:
        raise BadInput(f"Port {port} was taken by another program just now; name another with --port.")


LONG_TESTS = "HEM_LONG_TESTS"


def _test(arguments: list[str]) -> int:
    """pytest with its own arguments; ``--long`` adds the runs that take their time."""
    long = "--long" in arguments
    given = [argument for argument in arguments if argument != "--long"]
    if not given:  # everything: on every core there is, and one more, since a browser is waited for half the time
        given = ["-n", str((os.cpu_count() or 1) + 1), "--dist", "worksteal"]
    room = {"PYTEST_DEBUG_TEMPROOT": "/dev/shm"} if os.access("/dev/shm", os.W_OK) else {}  # spares the disk
    asked = {LONG_TESTS: "1"} if long else {}
    return subprocess.call([sys.executable, "-m", "pytest", *given], cwd=HOME, env={**os.environ, **room, **asked})


def _check(_: argparse.Namespace) -> int:
    npm = ["npm", "run", "--silent", "check"]
    steps = (
        ("formatting", [sys.executable, "-m", "ruff", "format", "--check", "src", "tests", "hem"], HOME),
        ("lint", [sys.executable, "-m", "ruff", "check", "src", "tests", "hem"], HOME),
        ("types", [sys.executable, "-m", "mypy"], HOME),
        ("import rules", [str(Path(sys.executable).parent / "lint-imports")], HOME),
        ("interface", npm, WEB),
    )
    failed = []
    # all at once, told one after the other
    begun = [
        (name, subprocess.Popen(command, cwd=where, stdout=subprocess.PIPE, stderr=subprocess.STDOUT))
        for name, command, where in steps
    ]
    for name, step in begun:
        print(f"— {name}", flush=True)
        said = step.communicate()[0]
        sys.stdout.buffer.write(said)
        sys.stdout.flush()
        if step.returncode:
            failed.append(name)
    print("— generated client", flush=True)
    if (WEB / "openapi.json").read_text() != _openapi():
        failed.append("generated client (run ./hem client)")
    from gentle_hem.recipe_page import recipe_page

    print("— recipe page", flush=True)
    if RECIPE_PAGE.read_text() != recipe_page():
        failed.append("docs/recipe.md (run ./hem client)")
    print(f"failed: {', '.join(failed)}" if failed else "all checks pass")
    return 1 if failed else 0


def _openapi() -> str:
    from gentle_hem.api.app import create_app
    from gentle_hem.store import Store

    schema = create_app(Store.__new__(Store)).openapi()
    return json.dumps(schema, indent=1, sort_keys=True) + "\n"


def _catalogue(options: argparse.Namespace) -> None:
    from gentle_hem.catalogue import entries, interface_entries, write

    write([*entries(), *interface_entries(WEB)], options.out)


def _client(_: argparse.Namespace) -> int:
    from gentle_hem.recipe_page import recipe_page

    RECIPE_PAGE.write_text(recipe_page())
    (WEB / "openapi.json").write_text(_openapi())
    return subprocess.call(["npm", "run", "--silent", "client"], cwd=WEB)


def _sum(options: argparse.Namespace) -> None:
    kind = SUMS.get(options.name)
    if kind is None:
        raise BadInput(f"There is no sum called {options.name}; there are {', '.join(SUMS)}.")
    inputs = {}
    for pair in options.inputs:
        key, found, value = pair.partition("=")
        if not found:
            raise BadInput(f'"{pair}" is not key=value; write for example {next(iter(kind.model_fields))}="31 1/4 in".')
        if key in inputs:
            raise BadInput(f"{key} was given twice; give it once.")
        inputs[key] = value
    unit = Unit(options.unit) if options.unit else None
    try:
        result = ask(kind, inputs, unit).answer()
    except SumError as wrong:
        raise BadInput(str(wrong)) from None
    shown = Tape(unit or _spoken_unit(inputs), options.mark)
    if options.json:
        print(json.dumps(result.document(shown), indent=2, ensure_ascii=False))
    else:
        _print_sum(kind.title, result, shown)


def _spoken_unit(inputs: dict[str, str]) -> Unit:
    """The unit the inputs were written in: inches as soon as one of them is."""
    marks = ('"', "in", "ft", "'", "″", "′", "yd", "yard", "feet", "foot")
    return Unit.INCH if any(mark in value for value in inputs.values() for mark in marks) else Unit.CM


def _print_sum(title: str, result: SumResult, unit: Said) -> None:
    said = result.document(unit)
    print(title)
    for line in said["workings"]:
        rule = f"   ({line['rule']})" if line["rule"] else ""
        print(f"  {line['label']:<28} {line['line']}{rule}")
    for finding in said["findings"]:
        print(f"  {finding['severity']}: {finding['text']}")


def recipe_in(path: Path) -> Recipe:
    """A recipe file; BadInput when there is none or it cannot be read."""
    try:
        document = json.loads(path.read_bytes())
    except OSError as error:
        raise BadInput(f"{path} cannot be opened: {error.strerror}; name a .recipe.json file.") from None
    except (ValueError, RecursionError):
        raise BadInput(f"{path} is not readable JSON; name a .recipe.json file.") from None
    try:
        return read_recipe(document)
    except UnreadableRecipe as why:
        raise BadInput(f"{path} is not a recipe: {why}") from None


def _make(options: argparse.Namespace) -> int:
    """Recipes to files. One writes into the folder, several into a folder each, by their file's name."""
    from gentle_hem.formats.files import WRITERS, Order, write_all
    from gentle_hem.formats.paper import Paper, Printing

    formats = [name.strip() for name in options.format.split(",") if name.strip()]
    unknown = [name for name in formats if name not in WRITERS]
    if unknown or not formats:
        raise BadInput(f"There is no format {', '.join(unknown) or 'given'}; there are {', '.join(WRITERS)}.")
    recipes = {path: recipe_in(path) for path in options.files}
    folders = {path: _folder_for(path, options.out, len(recipes)) for path in recipes}
    if len(set(folders.values())) < len(folders):
        raise BadInput("Two of the recipes have files of one name; make them one at a time.")
    codes = []
    for path, recipe in recipes.items():
        garment = make_up(recipe)
        files = write_all(Order(recipe, garment, Printing(Paper(options.paper))), formats)
        try:
            folders[path].mkdir(parents=True, exist_ok=True)
            for name, content in files.items():
                (folders[path] / name).write_bytes(content)
        except OSError as error:
            raise BadInput(f"{folders[path]} cannot be written to: {error.strerror}; name another folder.") from None
        print(f"{len(files)} files in {folders[path]}: {', '.join(files)}")
        codes.append(_say_findings(recipe, garment, "pdf" in formats))
    return 1 if 1 in codes else max(codes)


def _folder_for(file: Path, out: Path, count: int) -> Path:
    return out if count == 1 else out / file.name.removesuffix(".recipe.json")


def _say_findings(recipe: Recipe, garment: Garment, on_paper: bool) -> int:
    """Print every finding; returns 1 for a fault of the program, 3 when it is not ready to cut, else 0."""
    for finding in garment.findings:
        print(f"  {finding.severity.value}: {finding.text(recipe.unit)}")
    if on_paper:
        from gentle_hem.formats.letters import unprintable

        missing = unprintable(recipe.name, recipe.figure.name)
        if missing:
            print(f"Cannot be printed in the PDFs, where ▯ stands for it: {missing}", file=sys.stderr)
    if any(finding.code == FAULT for finding in garment.findings):
        return 1
    if not garment.is_ready_to_cut:
        print("  not ready to cut")
        return 3
    return 0


def _bench(_: argparse.Namespace) -> None:
    from gentle_hem.bench import main as bench
    from gentle_hem.bench_lays import main as bench_lays

    bench()
    bench_lays()


if __name__ == "__main__":
    sys.exit(main())
