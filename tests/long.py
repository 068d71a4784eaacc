"""How much of a generated run is made: a little every time, all of it under ``./hem test --long``."""

import os

IS_LONG = os.environ.get("HEM_LONG_TESTS") == "1"


def examples(usual, long):
    """The usual number of examples, or the long run's."""
    return long if IS_LONG else usual
