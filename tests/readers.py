"""Lengths and areas of our lines as general-purpose libraries measure them."""

from math import atan, hypot

import svgelements
from shapely import Polygon


def svg_length(path):
    """Length of a path read by svgelements, its jumps left out."""
    return sum(part.length(error=1e-6) for part in path if not isinstance(part, svgelements.Move))


def outline_length(*paths):
    """Length of an outline read by svgelements. It is drawn without its folds: straight, from one run to the next."""
    runs = [[part for part in path if not isinstance(part, svgelements.Move)] for path in paths]
    folds = (abs(complex(b[0].start) - complex(a[-1].end)) for a, b in zip(runs, [*runs[1:], runs[0]], strict=True))
    return sum(map(svg_length, paths)) + sum(folds)


def dxf_length(line):
    """Length of a closed polyline read by ezdxf: an arc of bulge b over chord c measures c·(1 + b²)/(2b)·2·atan b."""
    points = list(line.get_points("xyb"))
    total = 0.0
    for (x0, y0, bulge), (x1, y1, _) in zip(points, points[1:] + points[:1], strict=True):
        chord = hypot(x1 - x0, y1 - y0)
        total += chord * (1 + bulge**2) / (2 * bulge) * 2 * atan(bulge) if bulge else chord
    return abs(total)


def polygon(path, tolerance=0.005):
    """A closed line as shapely's polygon."""
    return Polygon([tuple(point) for point in path.flatten(tolerance)])
