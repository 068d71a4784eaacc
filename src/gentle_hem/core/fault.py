"""A fault of the program, said as what it is: not as a dress that cannot be made.

The rest of the garment goes on; the finding names the stage and the place in the program, never a measure or a name.
"""

from __future__ import annotations

import traceback
from pathlib import PurePath

from gentle_hem.core.findings import Finding, Place, stop

FAULT = "fault-of-the-program"


def fault(what: str, error: Exception, *at: Place) -> Finding:
    """The finding for an error nobody foresaw while ``what`` was being made."""
    frame = traceback.extract_tb(error.__traceback__)[-1]
    where = f"{type(error).__name__} at {PurePath(frame.filename).name}:{frame.lineno}"
    return stop(
        FAULT,
        "A fault of the program, not of your pattern: the {what} could not be made ({where}). Everything else is as it "
        "should be and is kept; undo the last change, or send this sentence to whoever looks after the program.",
        *at,
        what=what, where=where,
    )  # fmt: skip
