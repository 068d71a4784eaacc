"""A photograph made fit to be kept: turned the right way up, no larger than it is looked at, and without what the
camera wrote into it of the place and the time.
"""

from __future__ import annotations

import io
import warnings

from gentle_hem.formats.outlines import UnreadableError

KINDS = ("JPEG", "PNG", "WEBP")
MOST_PIXELS = 48_000_000
LONGER_SIDE = 1600
"""How large it is kept (pixels)."""

QUALITY = 82


def fit_to_keep(name: str, content: bytes) -> bytes:
    """The photograph as a JPEG of its own. Raises UnreadableError with a sentence."""
    from PIL import Image, ImageOps, UnidentifiedImageError

    Image.MAX_IMAGE_PIXELS = None  # the limit is said in our own words
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            picture = Image.open(io.BytesIO(content), formats=KINDS)
            width, height = picture.size
            if width * height > MOST_PIXELS:
                raise UnreadableError(
                    f"{name} has {width * height / 1e6:.0f} megapixels; {MOST_PIXELS // 1_000_000} are accepted. Make "
                    "it less."
                )
            picture.draft("RGB", (LONGER_SIDE, LONGER_SIDE))
            upright = ImageOps.exif_transpose(picture).convert("RGB")
    except UnreadableError:
        raise
    except UnidentifiedImageError:
        raise UnreadableError(f"{name} is not a photograph I can read; JPEG, PNG and WebP are accepted.") from None
    except (OSError, ValueError, SyntaxError, EOFError):
        raise UnreadableError(f"{name} is cut short or damaged. Save the photograph again and send it.") from None
    upright.thumbnail((LONGER_SIDE, LONGER_SIDE))
    written = io.BytesIO()
    upright.save(written, "JPEG", quality=QUALITY)
    return written.getvalue()
