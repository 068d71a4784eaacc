"""The reader's side of ``apart``: one file, read under limits, answered in one line of JSON."""

from __future__ import annotations

import base64
import json
import os
import resource
import signal
import sys
from typing import Any

import ezdxf.filemanagement  # noqa: F401  (here, so that it is loaded before the file comes)
import svgelements  # noqa: F401

from gentle_hem.core.geometry import Path
from gentle_hem.core.geometry.path_text import path_data
from gentle_hem.core.units import Unit
from gentle_hem.formats.apart import LONGEST, LONGEST_PHOTO, PHOTOGRAPHS
from gentle_hem.formats.figure_csv import TableError, from_csv
from gentle_hem.formats.outlines import Outline, UnreadableError
from gentle_hem.formats.read_block import read_block

MORE_MEMORY, PHOTO_MEMORY = 120 * 1024 * 1024, 1200 * 1024 * 1024
"""How much more memory a file, and a photograph, may take than the reader itself (bytes)."""


MOST_OUTLINES = 40


def _limit() -> None:
    with open("/proc/self/statm") as file:
        taken = int(file.read().split()[0]) * resource.getpagesize()
    resource.setrlimit(resource.RLIMIT_AS, (taken + MORE_MEMORY, taken + PHOTO_MEMORY))
    os.nice(5)


def _make_room() -> None:
    """All that a photograph may take."""
    _, most = resource.getrlimit(resource.RLIMIT_AS)
    resource.setrlimit(resource.RLIMIT_AS, (most, most))


def read(job: dict[str, Any], content: bytes) -> Any:
    """What is in a file, in JSON's own types."""
    if job["kind"] == "table":
        return {str(key): value for key, value in from_csv(content.decode("utf-8-sig"), Unit(job["unit"])).items()}
    if job["kind"] == "photo":
        from gentle_hem.formats.photo import read_photo

        corners = [(float(x), float(y)) for x, y in job["corners"] or ()]
        set_right = (corners[0], corners[1], corners[2], corners[3]) if corners else None
        seen = read_photo(job["name"], content, (job["mat"][0], job["mat"][1]), set_right)
        return {
            "width": seen.width, "height": seen.height, "corners": seen.corners, "outline": _outline(seen.outline)
        }  # fmt: skip
    if job["kind"] == "picture":
        from gentle_hem.formats.picture import fit_to_keep

        return base64.b64encode(fit_to_keep(job["name"], content)).decode()
    return [_outline(outline) for outline in read_block(job["name"], content)[:MOST_OUTLINES]]


def _outline(outline: Outline) -> dict[str, Any]:
    return {
        "name": outline.name,
        "edges": [{"d": path_data(e.path), "length": e.path.length, "guess": e.guess} for e in outline.edges],
        "darts": [
            {"edge": d.edge, "at": d.at, "intake": d.intake, "apex": (d.apex.x, -d.apex.y)} for d in outline.darts
        ],
        "box": Path.joined(edge.path for edge in outline.edges).box,
    }


def answer(job: dict[str, Any], content: bytes) -> dict[str, Any]:
    """What was found, or one sentence of ours that says why nothing was."""
    name = job["name"]
    try:
        return {"found": read(job, content)}
    except (UnreadableError, TableError) as wrong:
        return {"sentence": str(wrong)}
    except MemoryError:
        return {"sentence": f"{name} asks for more memory than a block is worth. Leave out everything but the lines of "
                            "the pieces and send it again."}  # fmt: skip
    except RecursionError:
        return {"sentence": f"{name} holds drawings inside drawings without end. Save the lines themselves."}
    except UnicodeDecodeError:
        return {"sentence": f"{name} is not text that can be read; save it as UTF-8."}
    except Exception:  # whatever a stranger's file makes a reader stumble over
        return {"sentence": f"{name} cannot be read as the file its name says it is. Save it again and send it."}


def main() -> None:
    """Say that it is ready, read one job, answer it."""
    _limit()
    out = sys.stdout.buffer
    out.write(b"ready\n")
    out.flush()
    source = sys.stdin.buffer
    line = source.readline()
    if not line:
        return
    job = json.loads(line)
    photo = job["kind"] in PHOTOGRAPHS
    if photo:
        _make_room()
    # of work, so that a busy machine refuses nothing it should read
    signal.setitimer(signal.ITIMER_PROF, LONGEST_PHOTO if photo else LONGEST)
    out.write(json.dumps(answer(job, source.read(job["size"]))).encode("utf-8", errors="replace"))
    out.flush()


if __name__ == "__main__":
    main()
