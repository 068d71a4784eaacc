"""What can be wrong with the place where the records are kept, in one sentence that says what to do."""

from __future__ import annotations

import sqlite3
from pathlib import Path

from sqlalchemy.exc import DBAPIError


class StoreTrouble(Exception):  # noqa: N818  (it is not an error of the program)
    """The records cannot be opened, read or written; the sentence says why and what to do."""


class NotABackup(StoreTrouble):
    """A file that is no sound backup of ours; nothing was changed for it."""


def sentence_for(error: BaseException, file: Path) -> str | None:
    """What a database error means for the maker; None where it is nothing of the disk, the lock or the file."""
    cause = error.orig if isinstance(error, DBAPIError) else error
    if isinstance(cause, OSError):
        return f"The folder {file.parent} cannot be used ({cause.strerror}). Make it writable, or name another."
    if not isinstance(cause, sqlite3.Error):
        return None
    said = str(cause)
    if "locked" in said or "busy" in said:
        return (
            "Your records are being written by another program and stayed locked for ten seconds. It is tried again; "
            "if it goes on, close the other program."
        )
    if "full" in said:
        return "The disk is full, so nothing more can be kept. Make room; what you typed is still here."
    if "readonly" in said or "read-only" in said:
        return f"{file} may only be read, so nothing can be kept. Make the file and its folder writable."
    if "unable to open" in said:
        return f"{file} cannot be opened. Make its folder readable and writable, or name another."
    if "malformed" in said or "not a database" in said or "corrupt" in said:
        return damaged(file)
    if "disk I/O" in said:
        return f"The disk under {file} does not answer properly. Look at the disk; what you typed is still here."
    return None


def damaged(file: Path) -> str:
    """The sentence for a file that is no sound database, with the newest copy that is."""
    newest = newest_copy(file.parent)
    where = (
        f'bring back the copy of {newest.stem[-10:]} with ./hem restore "{newest}"' if newest else "restore a backup"
    )
    return f"{file} is damaged and has been left as it is. Keep it aside, and {where}."


def copies_folder(folder: Path) -> Path:
    """Where the daily copies of a folder's records lie."""
    return folder / "copies"


def replaced_folder(folder: Path) -> Path:
    """Where what a restore replaced lies."""
    return folder / "replaced"


def newest_copy(folder: Path) -> Path | None:
    """The newest daily copy, if there is one."""
    return max(copies_folder(folder).glob("gentle-hem-*.sqlite"), default=None)
