"""A language nobody speaks: every sentence as it is, its letters with accents, so that what is not turned is seen."""

import re
from pathlib import Path

import polib

from gentle_hem.catalogue import entries, interface_entries

ACCENTS = str.maketrans("aeiouyAEIOUYcnsrlt", "áéíóúýÁÉÍÓÚÝçñšřľť")

KEPT = re.compile(r"\{[^{}]*\}|\[[\w.=|,]+:")


def turned(text):
    """A text in the language: what stands in braces, and what a bracket waits for, stays."""
    out, at = [], 0
    for kept in KEPT.finditer(text):
        out += [text[at : kept.start()].translate(ACCENTS), kept.group()]
        at = kept.end()
    return "".join([*out, text[at:].translate(ACCENTS)])


def write_pseudo(path: Path) -> Path:
    """The whole catalogue turned, the core's and the interface's, as a PO file."""
    file = polib.POFile()
    file.metadata = {"Content-Type": "text/plain; charset=utf-8", "Language": "x-pseudo"}
    for text, context in dict.fromkeys(
        (one.text, one.context) for one in [*entries(), *interface_entries(Path("web"))]
    ):
        file.append(polib.POEntry(msgid=text, msgctxt=context or None, msgstr=turned(text)))
    file.save(str(path))
    return path
