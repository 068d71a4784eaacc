"""Gentle Hem: from a bodice that fits to a dress that meets at the waist."""

import os

if language := os.environ.get("GENTLE_HEM_LANGUAGE"):
    import sys
    from pathlib import Path

    from gentle_hem.catalogue import BadLanguage, speak

    try:
        speak(Path(language))
    except BadLanguage as wrong:
        sys.exit(f"GENTLE_HEM_LANGUAGE: {wrong}")
