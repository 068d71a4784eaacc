"""Gentle Hem: from a bodice that fits to a dress that meets at the waist."""

import os

if language := os.environ.get("GENTLE_HEM_LANGUAGE"):
    from pathlib import Path

    from gentle_hem.catalogue import speak

    speak(Path(language))
