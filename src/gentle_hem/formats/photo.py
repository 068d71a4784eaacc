"""A photograph or scan of a paper piece on a mat: the mat's corners found, laid flat, and the piece's outline read.

photograph                         laid flat, in mm
 ╱‾‾‾‾‾‾‾‾‾‾╲                       ┌────────────┐
╱  ╭────╮     ╲      corners ──►    │  ╭────╮    │     the mat's own sides say how large everything is
╲  │    │      ╲                    │  │    │    │
 ╲_╰────╯______╱                    └──╰────╯────┘

The mat is a rectangle of a known size with its corners in sight; the paper lies whole on it, lighter or darker.
What is too dark, too blurred, too oblique or without a mat is refused with what to do about it.
"""

from __future__ import annotations

import io
import itertools
from dataclasses import dataclass
from math import hypot
from typing import Any

import numpy as np
from numpy.typing import NDArray

from gentle_hem.core.geometry import Line, Path, Point
from gentle_hem.formats.outlines import Outline, UnreadableError, outline_of

Corners = tuple[tuple[float, float], tuple[float, float], tuple[float, float], tuple[float, float]]
"""The mat's corners in the picture: upper left, upper right, lower right, lower left (pixels)."""

Image = NDArray[Any]

MOST_PIXELS = 48_000_000
WORKED_ON = 9_000_000
"""A picture of more pixels than this is halved until it has fewer: a millimetre is still many of them."""

DOTS = 4.0
"""How many dots a millimetre of the mat is laid flat in."""

MOST_DOTS = 24_000_000
SMALLEST_MAT = 0.12
"""The mat must fill at least this share of the picture."""

BLURRED = 1.6
"""How wide the paper's edge may be smeared (mm, as the deviation of a blur)."""

FILLED = 0.93
"""How much of its four sides a mat must fill."""

OBLIQUE = 1.8
"""How much longer than the side opposite a side of the mat may look."""

CONTRAST = 28.0
"""How much lighter or darker than the mat the paper must be, of 255."""

STRAY = 0.6
"""How far the outline's points may be drawn beside what was seen (mm)."""


@dataclass(frozen=True, slots=True)
class Photographed:
    """What a photograph shows: its size and the mat's corners in it (pixels), and the outline of the piece (mm)."""

    width: int
    height: int
    corners: Corners
    outline: Outline


def read_photo(name: str, content: bytes, mat: tuple[float, float], corners: Corners | None = None) -> Photographed:
    """The piece on a mat of a width and height (mm). ``corners``: the mat's, where a hand has set them right.

    Raises UnreadableError with a sentence that says what was wrong and what to do about it.
    """
    import cv2  # here, as it is large and wanted for nothing else

    grey, shrink = _grey(name, content)
    height, width = grey.shape
    found = _scaled(corners, 1 / shrink) if corners else _mat_in(name, grey)
    quad = np.array(found, dtype=np.float32)
    _look_at_mat(name, quad, width, height)
    dots = min(DOTS, (MOST_DOTS / (mat[0] * mat[1])) ** 0.5)
    flat_size = round(mat[0] * dots), round(mat[1] * dots)
    onto = np.array([(0, 0), (flat_size[0], 0), (flat_size[0], flat_size[1]), (0, flat_size[1])], dtype=np.float32)
    turned = cv2.getPerspectiveTransform(quad, onto)
    flat = cv2.warpPerspective(grey, turned, flat_size, flags=cv2.INTER_CUBIC, borderMode=cv2.BORDER_REPLICATE)
    places = _piece_on(name, flat, dots)
    points = [Point(float(x) / dots, -float(y) / dots) for x, y in places]
    ring = Path(tuple(Line(a, b) for a, b in itertools.pairwise([*points, points[0]])))
    outline = outline_of("the piece", ring, [])
    if outline is None:
        raise UnreadableError(f"In {name} no piece with corners is to be seen on the mat. Lay it whole within the mat.")
    return Photographed(round(width * shrink), round(height * shrink), _scaled(found, shrink), outline)


def _scaled(corners: Corners, factor: float) -> Corners:
    a, b, c, d = ((float(x) * factor, float(y) * factor) for x, y in corners)
    return a, b, c, d


def _grey(name: str, content: bytes) -> tuple[Image, float]:
    """The picture in grey, and how many of its pixels one of ours is."""
    import cv2
    from PIL import Image as Picture
    from PIL import UnidentifiedImageError

    try:
        with Picture.open(io.BytesIO(content)) as header:
            width, height = header.size
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Picture.DecompressionBombError):
        raise UnreadableError(f"{name} is not a photograph I can read; JPEG, PNG and WebP are accepted.") from None
    if width * height > MOST_PIXELS:
        raise UnreadableError(
            f"{name} has {width * height / 1e6:.0f} megapixels; {MOST_PIXELS // 1_000_000} are accepted. Make it less."
        )
    if min(width, height) < 300:
        raise UnreadableError(
            f"{name} is only {width} × {height} pixels; take the photograph with at least 1500 across."
        )
    shrink, how = 1, cv2.IMREAD_GRAYSCALE
    for factor, flag in (
        (2, cv2.IMREAD_REDUCED_GRAYSCALE_2), (4, cv2.IMREAD_REDUCED_GRAYSCALE_4), (8, cv2.IMREAD_REDUCED_GRAYSCALE_8)
    ):  # fmt: skip
        if width * height / shrink**2 > WORKED_ON:
            shrink, how = factor, flag
    picture = cv2.imdecode(np.frombuffer(content, dtype=np.uint8), how)
    if picture is None:
        raise UnreadableError(f"{name} is cut short or damaged. Save the photograph again and send it.")
    return np.asarray(picture, dtype=np.uint8), width / picture.shape[1]


def _mat_in(name: str, grey: Image) -> Corners:
    """The largest four-cornered thing in a picture."""
    import cv2

    small = cv2.GaussianBlur(grey, (0, 0), max(grey.shape) / 900)
    wide = _wide_blur(small.astype(np.float32), max(grey.shape) / 5)
    even = np.clip(small / (wide + 1) * 110, 0, 255).astype(np.uint8)  # without what a shadow does from side to side
    best: tuple[float, NDArray[np.float64]] | None = None
    for picture in (small, even):
        threshold, _ = cv2.threshold(picture, 0, 255, cv2.THRESH_BINARY + cv2.THRESH_OTSU)
        for level in (threshold, threshold * 0.75, threshold * 1.2):
            for kind in (cv2.THRESH_BINARY, cv2.THRESH_BINARY_INV):
                _, mask = cv2.threshold(picture, level, 255, kind)
                rings, _ = cv2.findContours(mask, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
                for ring in rings:
                    area = cv2.contourArea(ring)
                    if area < SMALLEST_MAT * grey.size or _at_border(ring, grey):
                        continue
                    quad = _four_sided(ring)
                    if quad is not None and (best is None or area > best[0]):
                        best = area, quad
    if best is None:
        raise UnreadableError(
            f"In {name} the mat's four corners are not to be seen. Photograph it from above, all of it in the picture, "
            "on something lighter or darker than it is; or set its corners by hand."
        )
    return _ordered(_refined(grey, best[1]))


def _wide_blur(values: NDArray[np.float32], reach: float) -> NDArray[np.float32]:
    """Values evened over a long reach, worked out on fewer of them."""
    import cv2

    shrink = max(reach / 6, 1.0)
    height, width = values.shape
    few = cv2.resize(
        values, (max(round(width / shrink), 2), max(round(height / shrink), 2)), interpolation=cv2.INTER_AREA
    )
    even = cv2.GaussianBlur(few, (0, 0), reach / shrink)
    return np.asarray(cv2.resize(even, (width, height), interpolation=cv2.INTER_LINEAR), dtype=np.float32)


def _refined(grey: Image, quad: NDArray[np.float64]) -> NDArray[np.float64]:
    """The corners once more: along each side the place where the grey changes most is looked for, and a line led
    through those places.
    """
    import cv2

    soft = cv2.GaussianBlur(grey, (0, 0), 1.5).astype(np.float32)
    reach = max(8, round(max(grey.shape) / 150))
    steps = np.arange(-reach, reach + 1)
    sides = []
    for a, b in zip(quad, np.roll(quad, -1, axis=0), strict=True):
        unit = (b - a) / np.hypot(*(b - a))
        across = np.array([-unit[1], unit[0]])
        places = [a + (b - a) * share for share in np.linspace(0.06, 0.94, 90)]
        found = []
        for place in places:
            xs, ys = (place[k] + steps * across[k] for k in (0, 1))
            profile = cv2.remap(soft, xs.astype(np.float32)[None], ys.astype(np.float32)[None], cv2.INTER_LINEAR)[0]
            steep = np.abs(np.gradient(profile)) ** 2
            at = int(np.argmax(steep))
            window = slice(max(at - 4, 0), at + 5)
            if steep[at] > 1:
                found.append(place + across * float((steps[window] * steep[window]).sum() / steep[window].sum()))
        if len(found) < 20:
            return quad
        vx, vy, x, y = cv2.fitLine(np.array(found, dtype=np.float32), cv2.DIST_HUBER, 0, 0.01, 0.01).ravel()
        sides.append((float(x), float(y), float(vx), float(vy)))
    return np.array([_crossing(sides[k - 1], sides[k]) for k in range(4)])


def _at_border(ring: Image, grey: Image) -> bool:
    left, top, right, bottom = ring[..., 0].min(), ring[..., 1].min(), ring[..., 0].max(), ring[..., 1].max()
    return bool(left <= 1 or top <= 1 or right >= grey.shape[1] - 2 or bottom >= grey.shape[0] - 2)


def _four_sided(ring: Image) -> NDArray[np.float64] | None:
    """A ring's four corners; None where it has not four sides."""
    import cv2

    hull = cv2.convexHull(ring)
    about = cv2.arcLength(hull, True)
    rough = next(
        (quad for share in (0.02, 0.03, 0.05) if len(quad := cv2.approxPolyDP(hull, share * about, True)) == 4), None
    )
    if rough is None:
        return None
    corners = rough[:, 0, :].astype(np.float64)
    filled = cv2.contourArea(ring) / cv2.contourArea(corners.astype(np.float32))
    return corners if FILLED < filled < 1 / FILLED else None


def _crossing(one: tuple[float, float, float, float], other: tuple[float, float, float, float]) -> tuple[float, float]:
    x, y, u, v = one
    p, q, r, s = other
    at = ((p - x) * s - (q - y) * r) / (u * s - v * r)
    return x + at * u, y + at * v


def _ordered(quad: NDArray[np.float64]) -> Corners:
    """Four corners from the upper left, round by the upper right."""
    centre = quad.mean(axis=0)
    turned = sorted(quad.tolist(), key=lambda p: np.arctan2(p[1] - centre[1], p[0] - centre[0]))
    start = min(range(4), key=lambda k: turned[k][0] + turned[k][1])
    a, b, c, d = ((float(x), float(y)) for x, y in (turned[(start + k) % 4] for k in range(4)))
    return a, b, c, d


def _look_at_mat(name: str, quad: NDArray[np.float32], width: int, height: int) -> None:
    """Whether the mat is large and square enough in the picture to be measured by."""
    import cv2

    if not np.isfinite(quad).all() or abs(cv2.contourArea(quad)) < SMALLEST_MAT * width * height:
        raise UnreadableError(f"In {name} the mat is too small to measure by. Go nearer, until it fills the picture.")
    if not cv2.isContourConvex(quad.astype(np.int32)):
        raise UnreadableError(f"The four corners set in {name} do not go round a mat; set them in order.")
    sides = [hypot(*(quad[k] - quad[k - 1])) for k in range(4)]
    if max(sides[0], sides[2]) > 1.8 * min(sides[0], sides[2]) or max(sides[1], sides[3]) > 1.8 * min(
        sides[1], sides[3]
    ):
        raise UnreadableError(f"{name} was taken too much from the side. Hold the camera straight above the mat.")


def _piece_on(name: str, flat: Image, dots: float) -> NDArray[np.float64]:
    """The outline of the paper on a mat that is laid flat, in dots."""
    import cv2

    inset = max(int(4 * dots), 2)
    inside = flat[inset:-inset, inset:-inset]
    # the light is never even: what it does over a hand's breadth is taken away, the mat itself serving as the measure
    smooth = cv2.GaussianBlur(inside, (0, 0), dots * 0.5)
    _, mask = cv2.threshold(smooth, 0, 255, cv2.THRESH_BINARY + cv2.THRESH_OTSU)
    light, dark = smooth[mask > 0], smooth[mask == 0]
    contrast = float(np.median(light)) - float(np.median(dark)) if light.size and dark.size else 0.0
    if contrast < CONTRAST:
        raise UnreadableError(
            f"In {name} no paper stands out from the mat. Take a mat darker than the paper, and more light; or, if the "
            "paper itself was taken for the mat, set the mat's corners by hand."
        )
    border = np.concatenate([mask[0], mask[-1], mask[:, 0], mask[:, -1]])
    if np.mean(border > 0) > 0.5:  # the mat is the lighter one
        mask = cv2.bitwise_not(mask)
    mask = _evened(smooth, mask)
    rings, _ = cv2.findContours(mask, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    large = sorted((r for r in rings if cv2.contourArea(r) > (50 * dots) ** 2), key=cv2.contourArea)
    if not large:
        raise UnreadableError(f"In {name} no paper piece is to be seen on the mat. Lay one piece whole within the mat.")
    ring = large[-1][:, 0, :].astype(np.float64)
    high, wide = mask.shape
    if ring.min() <= 1 or ring[:, 0].max() >= wide - 2 or ring[:, 1].max() >= high - 2:
        raise UnreadableError(f"In {name} the paper reaches over the mat's edge. Lay it whole within the mat.")
    fine = _on_the_edge(smooth, ring)
    if _blur(smooth, fine, contrast) > BLURRED * dots:
        raise UnreadableError(f"{name} is blurred. Hold the camera still, or lay it on something, and take it again.")
    simple = cv2.approxPolyDP(fine.astype(np.float32).reshape(-1, 1, 2), STRAY * dots, True)[:, 0, :]
    return np.asarray(simple, dtype=np.float64) + inset


def _evened(smooth: Image, mask: Image) -> Image:
    """The paper once more, against a level that follows the light: half between mat and paper as near by."""
    import cv2

    reach = max(smooth.shape) / 12
    values = smooth.astype(np.float32)
    paper = mask > 0

    def near(where: NDArray[np.bool_]) -> NDArray[np.float32]:
        made: NDArray[np.float32] = _wide_blur(values * where, reach) / (
            _wide_blur(where.astype(np.float32), reach) + 1e-4
        )
        return made

    between = (near(paper) + near(~paper)) / 2
    found = values > between if values[paper].mean() > values[~paper].mean() else values < between
    kernel = np.ones((5, 5), np.uint8)
    made = cv2.morphologyEx(found.astype(np.uint8) * 255, cv2.MORPH_OPEN, kernel)
    return np.asarray(cv2.morphologyEx(made, cv2.MORPH_CLOSE, kernel))


def _on_the_edge(smooth: Image, ring: NDArray[np.float64]) -> NDArray[np.float64]:
    """A ring of pixels smoothed along itself, so that its steps are gone and its corners are not."""
    import cv2

    moved = np.concatenate([ring[-2:], ring, ring[:2]])
    kernel = np.array([[1, 2, 3, 2, 1]], dtype=np.float64).T / 9
    even = cv2.filter2D(moved, -1, kernel)[2:-2]
    return np.asarray(even, dtype=np.float64)


def _blur(smooth: Image, ring: NDArray[np.float64], contrast: float) -> float:
    """How wide the change from mat to paper is across the outline: the deviation of a blur that does as much (dots)."""
    import cv2

    dx, dy = cv2.Sobel(smooth, cv2.CV_32F, 1, 0) / 8, cv2.Sobel(smooth, cv2.CV_32F, 0, 1) / 8
    columns = np.clip(ring[:, 0].round().astype(int), 0, smooth.shape[1] - 1)
    rows = np.clip(ring[:, 1].round().astype(int), 0, smooth.shape[0] - 1)
    steep = float(np.median(np.hypot(dx, dy)[rows, columns]))
    return contrast / (2.5066 * max(steep, 1e-6))
