"""One zip of a whole commission, out and back in: its recipe, every file, and its log.

pattern.zip ── recipe.json      the dress, with the person's name and measures only where she consents
            ── pattern.pdf …    every file there is
            ── log.json         what is said of it, and when each version was kept

What comes in is looked at before any of it is unpacked: names that lead out of the zip, more than it says, too much.
"""

from __future__ import annotations

import io
import json
import re
import zipfile
import zlib
from pathlib import PurePosixPath
from typing import Any

from gentle_hem.formats.files import WRITERS, Order, write_all
from gentle_hem.limits import LARGEST_SAID, LARGEST_UPLOAD

MOST_PARTS = 100
LARGEST_WHOLE = 60_000_000
"""How much a zip may hold once unpacked (bytes)."""

RECIPE, LOG = "recipe.json", "log.json"
DEEPEST = 60
"""How deep lists and objects may lie in each other; a recipe's lie less than ten deep."""


UNZIPPABLE = (zipfile.BadZipFile, zlib.error, RuntimeError, EOFError, OSError, ValueError)
"""What a zip that is cut short, locked, damaged or packed in a way of its own is met with."""


class NotABundle(ValueError):  # noqa: N818  (it is what a file is not)
    """A file that is no commission of ours; the sentence says why and what is accepted."""


def packed(order: Order, log: dict[str, Any], *, with_person: bool = True) -> bytes:
    """Every file of a dress in one zip. Without her consent the person's name and measures are left out of the recipe
    and of the log; the pieces are cut to them all the same.
    """
    content = io.BytesIO()
    with zipfile.ZipFile(content, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, written in write_all(order, [*WRITERS]).items():
            if name != RECIPE:
                archive.writestr(name, written)
        recipe = order.recipe.model_dump(mode="json")
        if not with_person:
            recipe["figure"] = {}
            log = {key: value for key, value in log.items() if key != "person"}
        archive.writestr(RECIPE, json.dumps(recipe, indent=2, ensure_ascii=False) + "\n")
        archive.writestr(LOG, json.dumps(log, indent=2, ensure_ascii=False) + "\n")
    return content.getvalue()


def unpacked(name: str, content: bytes) -> tuple[dict[str, Any], dict[str, Any]]:
    """The recipe of a commission in a zip, or in a recipe.json by itself, and its log, empty where there is none.

    Raises NotABundle with a sentence.
    """
    if len(content) > LARGEST_UPLOAD:
        raise NotABundle(f"{name} is larger than {LARGEST_SAID}; a commission is a few hundred kilobytes.")
    if not content.startswith(b"PK"):
        return _document(name, content), {}
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            parts = archive.infolist()
            _look_at(name, parts)
            if RECIPE not in archive.namelist():
                raise NotABundle(f"{name} holds no recipe.json; a pattern.zip or a recipe.json of ours is accepted.")
            log = _document(LOG, _part(archive, LOG)) if LOG in archive.namelist() else {}
            return _document(RECIPE, _part(archive, RECIPE)), log
    except NotABundle:
        raise
    except UNZIPPABLE:
        raise NotABundle(
            f"{name} is not a whole zip file: it is cut short, locked or damaged. Send it again."
        ) from None


def _look_at(name: str, parts: list[zipfile.ZipInfo]) -> None:
    if len(parts) > MOST_PARTS:
        raise NotABundle(f"{name} holds {len(parts)} files; a commission has a dozen.")
    if sum(part.file_size for part in parts) > LARGEST_WHOLE:
        raise NotABundle(f"{name} would unpack to more than {LARGEST_WHOLE // 1_000_000} MB; a commission is far less.")
    for part in parts:
        path = PurePosixPath(part.filename.replace("\\", "/"))
        if path.is_absolute() or ".." in path.parts or ":" in part.filename:
            raise NotABundle(
                f"{name} holds a file whose name leads out of it ({part.filename[:60]}); nothing was read."
            )


def _part(archive: zipfile.ZipFile, part: str) -> bytes:
    """One part, no more of it than is ever needed: what a zip says of its sizes may be untrue."""
    with archive.open(part) as stream:
        content = stream.read(LARGEST_UPLOAD + 1)
    if len(content) > LARGEST_UPLOAD:
        raise NotABundle(f"The {part} in it is larger than {LARGEST_SAID}.")
    return content


def _document(name: str, content: bytes) -> dict[str, Any]:
    try:
        text = content.decode("utf-8-sig")
        if _deepest(text) > DEEPEST:
            raise NotABundle(f"{name} has lists in lists without end; it is no recipe of ours.")
        read = json.loads(text)
    except NotABundle:
        raise
    except (ValueError, RecursionError):
        raise NotABundle(f"{name} is not readable JSON; a pattern.zip or a recipe.json of ours is accepted.") from None
    if not isinstance(read, dict):
        raise NotABundle(f"{name} is not a recipe: it holds a list or a word in the place of one.")
    return read


def _deepest(text: str) -> int:
    """How deep brackets lie, those within words counted too: an upper bound, and quick."""
    depth = deepest = 0
    for bracket in re.findall(r"[\[\]{}]", text):
        depth += 1 if bracket in "[{" else -1
        deepest = max(deepest, depth)
    return deepest
