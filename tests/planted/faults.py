"""Faults planted one at a time, to see a test fail: swaps, wrong ends, dropped allowances, changed constants.

    python tests/planted/faults.py [first] [last]

Each is a line of the core and what is put in its place. A copy of the source is changed, the tests of the drafts are
run on it, and the list is printed with what caught each.
"""

import os
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).parents[2]
CORE = "src/gentle_hem/core/"
TESTS = [
    f"tests/core/test_{name}.py"
    for name in (
        "golden_drafts", "once_wrong", "trims", "fit", "circle", "lower_parts", "lower_shapes", "style", "style_lines", "splitting",
        "fronts", "cut_and_cloths", "nothing_in_silence", "facts_of_the_trade", "bands_and_finish", "shape", "balance", "taste", "steps", "openings",
        "pockets_and_edges", "combinations", "kept_stages", "upgrade", "drawn_dress", "fitting_steps", "families",
        "sentences", "already_cut", "lay", "matching", "chalk", "ways_out", "glossary",
    )
] + ["tests/external/test_shapes_from_files.py", "tests/external/test_every_example.py", "tests/formats/test_labels.py", "tests/formats/test_printing.py"]  # fmt: skip

FAULTS = [
    ("making/precedence.py", "yield piece.what, piece.edges[at - 1].name", "yield piece.what, piece.edges[at].name"),
    ("making/precedence.py", "if crossed.opens and across.rank < crossed.rank:", "if False:"),
    ("making/precedence.py", "elif one.rank > zip_in.rank and Sort.CAPE in sorts:", "elif False:"),
    ("making/precedence.py", 'yield Before(hang.key, level.key, "it is levelled when it has grown")', "pass"),
    ("making/precedence.py", "if small and not made_up and one.rank < other.rank", "if False"),
    ("making/seam_work.py", "return max(1, edges // there // (2 if seam.is_of_itself else 1))", "return edges"),
    ("making/seam_work.py", "return sewn.walked.length_a - zip_end if upwards else zip_end", "return zip_end"),
    ("making/seam_work.py", "rank = SIDES_LAST", "pass"),
    ("making/seam_work.py", "return slits.get((stretch.piece, stretch.edge), 0.0)", "return 0.0"),
    ("making/other_work.py", "ONTO_THE_BIAS = 30.0", "ONTO_THE_BIAS = 3.0"),
    ("making/other_work.py", "and is_open(sewn, recipe, pieces) and all_zip(sewn, pieces)", "and is_open(sewn, recipe, pieces)"),
    ("making/plan.py", "if school is School.WAIST_FIRST and not known.lies_flat():", "if False:"),
    ("making/plan.py", "one.minutes * pace.get(one.work, 1.0)", "one.minutes / pace.get(one.work, 1.0)"),
    ("lower/full.py", "level=host.level + sum(heights[:k])", "level=host.level"),
    ("parts.py", "return self.opening.below_waist - self.level", "return self.opening.below_waist"),
    ("cloth/things.py", "scale(shape, -1, 1, origin=(0, 0)), pi - grain", "shape, grain"),
    ("cloth/things.py", "each = (across + 2 * JOINED * (count - 1)) / count", "each = across / count"),
    ("cloth/things.py", "TURNS = {Lie.ALONG: 0.0, Lie.BIAS: -45.0", "TURNS = {Lie.ALONG: 0.0, Lie.BIAS: -30.0"),
    ("cloth/things.py", "(0, width), between(at - JOINED, across)", "(0, width), between(at, across)"),
    ("cloth/squares.py", "for turned in (False,) if one_way else (False, True):", "for turned in (False, True):"),
    ("cloth/squares.py", "near = moved.buffer(APART + SQUARE * 0.5 * sqrt(2))", "near = moved"),
    ("cloth/squares.py", "start = (anchor.along - anchor.y) % along", "start = anchor.along % along"),
    ("cloth/squares.py", "first = (anchor.across - anchor.x) % across", "first = anchor.across % across"),
    ("cloth/on_fold.py", "spot = cloth.put(ways, 0.0 if at_fold else None)", "spot = cloth.put(ways)"),
    ("cloth/on_fold.py", "start = length_of(before) + APART", "start = length_of(before)"),
    ("cloth/on_fold.py", "beside = width - 2 * folded", "beside = width - folded"),
    ("cloth/on_fold.py", "if across_of(half) <= folded:", "if across_of(half) <= 2 * folded:"),
    ("cloth/matching.py", "found[mate] = mate_at, level + height(here, at) - height(here, known)",
     "found[mate] = mate_at, level"),
    ("cloth/matching.py", "if bend > BORDER_BEND:", "if bend > 100 * BORDER_BEND:"),
    ("cloth/matching.py", "laid[one.name] = Thing(one.name, shape, on_border=True)", "laid[one.name] = Thing(one.name, shape)"),
    ("cloth/bought.py", "taken / (1 - cloth.shrinks / 100)", "taken * (1 + cloth.shrinks / 100)"),
    ("cloth/lay.py", "- 2 * cloth.selvedge", "- cloth.selvedge"),
    ("cloth/lay.py", "if one.outline.distance(other.outline) < APART - TOUCH:", "if one.outline.overlaps(other.outline):"),
    ("cloth/chalk.py", "return translate(shape, -x, -shape.bounds[1])", "return translate(shape, 0, -shape.bounds[1])"),
    ("cloth/chalk.py", "round(outer[0].radius + outer[1], 1)", "round(outer[0].radius - outer[1], 1)"),
    ("cloth/chalk.py", "2 * outer_cut * sin(radians(sweep / layers) / 2)", "2 * outer_cut * sin(radians(sweep / layers))"),
    ("cutting/open_out.py", "at=lengths[dart.edge] - dart.at - dart.intake", "at=dart.at"),
    ("pattern.py", "at_fold = self.on_fold and _corner_at_fold(before, after, runs[i], runs[j])", "at_fold = None"),
    ("make_up.py", "if is_cut(recipe):\n        findings", "if not recipe.steps:\n        findings"),
    ("fit.py", "waist.path.tangent_at(along).left * by", "waist.path.tangent_at(along).left * -by"),
    ("fit.py", "moves = (notch.kind is NotchKind.ZIP_END) == (side is into)", "moves = side is into"),
    ("fit.py", "left = 1 - by / dart.apex.distance(", "left = 1 + by / dart.apex.distance("),
    ("lower_part.py", "length=above.level + recipe.lower.hangs - recipe.join.down", "length=above.level + recipe.lower.hangs"),
    ("lower_part.py", "lambda step: not is_cut(recipe) or step.parts == (\"lower\",)", "lambda step: True"),
    ("recipe.py", "if step.parts != (\"lower\",)]\n    return {", "]\n    return {"),
    ("typing_over.py", "if recipe.cut is not None and not any(", "if recipe.cut is None and not any("),
    ("lower/panel.py", "return half * host.front / host.half, half * host.back / host.half",
     "return half * host.back / host.half, half * host.front / host.half"),
    ("lower/panel.py", "stitched = seam_halves(host, seam)", "stitched = tuple(reversed(seam_halves(host, seam)))"),
    ("lower/panel.py", "return Hips(float(quarter) - shift, float(quarter) + shift",
     "return Hips(float(quarter) + shift, float(quarter) - shift"),
    ("lower/panel.py", 'Edge("side", Role.SIDE, side.reversed(), allowances.side,',
     'Edge("side", Role.SIDE, side.reversed(), 0.0,'),
    ("lower/panel.py", 'Edge("waist", Role.WAIST, waist, allowances.waist),', 'Edge("waist", Role.WAIST, waist, 0.0),'),
    ("lower/panel.py", "taken = min(side_in, hips[0] - stitched[0], hips[1] - stitched[1])",
     "taken = min(side_in / 2, hips[0] - stitched[0], hips[1] - stitched[1])"),
    ("lower/panel.py", "at = waist.length - from_centre * part.stitched / whole",
     "at = from_centre * part.stitched / whole"),
    ("lower/panel.py", "marks.append(zip_end(str(role), opening.below_waist))",
     "marks.append(zip_end(str(role), line.length - opening.below_waist))"),
    ("lower/straight.py", "width = max(part.hip - self.taper, 40.0)", "width = max(part.hip + self.taper, 40.0)"),
    ("lower/a_line.py", "straight = long - hip_depth", "straight = hypot(long - hip_depth, flare)"),
    ("lower/a_line.py", "foot = start + toward * straight", "foot = start + toward * (straight + 8)"),
    ("lower/circle_draft.py", "front_angle = (sewn_half * front / (front + back) + at_sides) / radius",
     "front_angle = (sewn_half * back / (front + back) + at_sides) / radius"),
    ("lower/circle_draft.py", 'Edge("hem", Role.HEM, hem, skirt.hem, turned=True),',
     'Edge("hem", Role.HEM, hem, 0.0, turned=True),'),
    ("lower/circle_draft.py", "from_front = self._position(mark.at) - start + taken",
     "from_front = self._position(mark.at) - start"),
    ("lower/circle_family.py", "(SKIRT_FRONT, front_angle, front_hem, inner.front), (SKIRT_BACK, back_angle, back_hem, None)",
     "(SKIRT_FRONT, back_angle, front_hem, inner.front), (SKIRT_BACK, front_angle, back_hem, None)"),
    ("lower/circle_family.py", "return front + (back - front) * (1 - cos(pi * share)) / 2",
     "return front + (back - front) * share"),
    ("lower/circle_family.py", '"half the square\'s side", radius + self.length', '"half the square\'s side", self.length'),
    ("lower/circle_family.py", 'Angle(theta / count), "{sweep} ÷ {gores}"', 'Angle(theta / (count + 1)), "{sweep} ÷ {gores}"'),
    ("lower/circle_family.py", 'f"{what.half} seam radius", half / pi,', 'f"{what.half} seam radius", half / 3,'),
    ("lower/full.py", "width = half * self.fullness\n            marks", "width = half * self.fullness + 5\n            marks"),
    ("lower/full.py", "pleat = half * (self.fullness - 1) / n", "pleat = half * self.fullness / n"),
    ("lower/full.py", "return [first * growth**k for k in range(tiers)]",
     "return [first * growth ** (tiers - 1 - k) for k in range(tiers)]"),
    ("lower/full.py", "last, grown = place == self.tiers - 1, self.fullness ** (place + 1)",
     "last, grown = place == self.tiers - 1, self.fullness**place"),
    ("lower/gores.py", '"gore at the hip", 2 * (hips.front + hips.back) / self.count',
     '"gore at the hip", 4 * hips.front / self.count + 6'),
    ("lower/gores.py", "waists = [length / share for length, share in ((front, plan.front), (back, plan.back)) if share]",
     "waists = [length / share for length, share in ((back, plan.front), (front, plan.back)) if share]"),
    ("lower/gores.py", "off = self.hem / 2 - made[2].length", "off = 0.0"),
    ("lower/gown.py", "shift = -self.hip_shift if is_front else self.hip_shift", "shift = self.hip_shift if is_front else -self.hip_shift"),
    ("lower/gown.py", "max(width - self.hem_in, 30.0)", "max(width + self.hem_in, 30.0)"),
    ("lower/gown.py", "seat=0.0 if is_front else self.seat", "seat=self.seat if is_front else 0.0"),
    ("lower/trousers.py", "fork = Point(-extension - part.back_crotch, -crotch - drop_back)",
     "fork = Point(-extension, -crotch - drop_back)"),
    ("lower/trousers.py", "if abs(over) < 1e-6:\n                break", "break"),
    ("lower/trousers.py", "front_hem = max((part.hem_round - part.back_leg) / 2, 40.0)",
     "front_hem = max(part.hem_round / 2, 40.0)"),
    ("lower/trousers.py", "SITTING = inches(0.5)", "SITTING = inches(1)"),
    ("lower/peplum.py", "max(self.top_length - host.bodice_length, 10.0)", "max(self.top_length - host.bodice_length + 12, 10.0)"),
    ("lower/inner_edge.py", "return InnerEdge(r, angle, back / r, point,", "return InnerEdge(r, angle, back / r * 0.98, point,"),
    ("cutting/carry.py", "hip = Point(x0 + below.hip_width, corner.y - below.waist_to_hip)",
     "hip = Point(old_x(corner, below), corner.y - below.waist_to_hip)\n\n\ndef old_x(corner: Point, below: Below) -> float:\n    return corner.x + 20"),
    ("cutting/carry.py", "x0 = centre.path.start.x", "x0 = old_foot.x"),
    ("cutting/carry.py", "inner = Point(x0 + seat, hip.y - BELOW_SEAT)", "inner = Point(waist.x + seat, hip.y - BELOW_SEAT)"),
    ("cutting/split.py", "for dart in reversed(below.darts_of(\"waist\")):", "for dart in below.darts_of(\"waist\"):"),
    ("cutting/pivot.py", "SHORT_OF_PIVOT = 25.0", "SHORT_OF_PIVOT = 0.0"),
    ("cutting/spread.py", "angle = 2 * asin(amount / (2 * reach))", "angle = asin(amount / (2 * reach))"),
    ("cutting/mirror.py", "dart, at=lengths[dart.edge] - dart.at - dart.intake,", "dart, at=lengths[dart.edge] - dart.at,"),
    ("style/contour.py", "line = Path.through(top, new_foot)", "line = Path.through(top, foot)"),
    ("style/contour.py", "return with_waist_ends(piece, line, side_out, dart_out=dart_out)",
     "return with_waist_ends(piece, line, 0.0, dart_out=dart_out)"),
    ("style/contour.py", "new_foot = foot + Point(taken, shorter)", "new_foot = foot + Point(taken, -shorter)"),
    ("style/fronts.py", "share += short / (cuts * spread)", "break"),
    ("style/fronts.py", "half = 0.5 if goes_on else 0.0", "half = 0.0"),
    ("style/fronts.py", "reach = min(facing - width,", "reach = min(facing,"),
    ("style/panels.py", "at = piece.edge(start).drawn_length * share\n    high", "at = piece.edge(start).drawn_length * (1 - share)\n    high"),
    ("style/tops.py", "OVER_THE_SHOULDER = inches(1.25)", "OVER_THE_SHOULDER = -200.0"),
    ("style/neckline.py", "low = neck.y - depth", "low = neck.y - depth / 2"),
    ("trim/ruffle.py", '"ruffle cut width", base * self.fullness,', '"ruffle cut width", base * self.fullness / 2,'),
    ("trim/ruffle.py", "dart = replace(dart, at=dart.at - at_after)", "pass"),
    ("trim/ruffle.py", "inner = parallel(hem.path, by)", "inner = parallel(hem.path, by / 2)"),
    ("trim/flounce.py", "(base / rings + 2 * join) / tau", "(base / rings + join) / tau"),
    ("trim/godet.py", "at = height if upwards else long - height", "at = height"),
    ("trim/godet.py", "foot = Path.of(Arc(ORIGIN, height, begin, angle))", "foot = Path.of(Arc(ORIGIN, height, begin, angle * 1.05))"),
    ("trim/sleeve.py", "long = front_length + self.cap_ease / 2, back_length + self.cap_ease / 2",
     "cap = _Cap(back_length + self.cap_ease / 2, front_length + self.cap_ease / 2, float(wide))"),
    ("trim/sleeve.py", 'Edge("cap front", Role.CAP, front.reversed(), allowances.armhole),',
     'Edge("cap front", Role.CAP, front.reversed(), 0.0),'),
    ("trim/neck.py", "CAPE_EASE = inches(0.5)", "CAPE_EASE = inches(1)"),
    ("trim/neck.py", "own_front = Stretch(what, \"top\", True, long - front_long, None)",
     "own_front = Stretch(what, \"top\", True, 0.0, front_long)"),
    ("trim/opening.py", "at = self.height if upwards else edge.drawn_length - self.height",
     "at = edge.drawn_length - self.height if upwards else self.height"),
    ("fit.py", "right = _run_out(right.reversed(), path.start).reversed()", "right = right"),
    ("fit.py", "along = mark.at * share + intake * k - start", "along = mark.at * share - start"),
    ("fit.py", "line = centre.path.split(by)[1] if ends_there", "line = centre.path.split(by / 2)[1] if ends_there"),
    ("cutting/true.py", "return (180 - b, b) if abs(a - 90) > abs(b - 90) else (a, 180 - a)",
     "return (180 - a, b) if abs(a - 90) > abs(b - 90) else (a, 180 - b)"),
    ("cutting/true.py", "made[end.what] = _carried_on(made[end.what], end, by)",
     "made[end.what] = _carried_on(made[end.what], end, by if end.what == corner.what else 0.1)"),
    ("cutting/true.py", "or piece.what.section.is_upper:", "or not piece.what.section.is_upper:"),
    ("cutting/redraw.py", "turned = Placement.rotation(radians(turn(far_leg, near_leg)), far)",
     "turned = Placement.rotation(radians(turn(near_leg, far_leg)), far)"),
    ("cutting/redraw.py", "if abs(over) < 1e-6:", "if abs(over) < 5:"),
    ("cutting/redraw.py", "middle = into.arriving.turned(radians(off / 2))", "middle = into.arriving"),
    ("cutting/redraw.py", "place = moved\n", "break\n"),
    ("balance.py", "double = piece.what.half is Half.BACK", "double = piece.what.half is Half.FRONT"),
    ("balance.py", "return [long - depth if ends_at_top else depth for depth in from_top]",
     "return [depth for depth in from_top]"),
    ("balance.py", "waists[half] - opening.below_waist", "waists[half] + opening.below_waist"),
    ("pattern.py", "corner, onto = (last, far) if folds_to_far(near, far, fold) else (first, near)",
     "corner, onto = (first, near) if folds_to_far(near, far, fold) else (last, far)"),
    ("pattern.py", "squared = _squared_off(before, after, cut_before, cut_after) if sharp else None", "squared = None"),
    ("trim/sleeve.py", "through = (along + out * steeper).unit", "through = (along - out * steeper).unit"),
    ("block/proportional.py", "far, tip = near.turned(-opened, apex), tip.turned(-opened, apex)",
     "far, tip = near.turned(-opened, apex), tip + along * intake"),
    ("marking.py", "reach = DRILL_INSIDE if corner in tips else DRILL_BESIDE",
     "reach = DRILL_BESIDE if corner in tips else DRILL_INSIDE"),
    ("marking.py", "lifted, laid = (near, far) if folds_to_far(near, far, fold) else (far, near)",
     "lifted, laid = (far, near) if folds_to_far(near, far, fold) else (near, far)"),
    ("marking.py", "kept = [not lies_on(segment) for segment in outline]", "kept = [True for segment in outline]"),
    ("balance.py", "rest, k = share * sum(lengths), 0", "rest, k = (1 - share) ** 2 * sum(lengths), 0"),
    ("trim/sleeve.py", 'Notch("cap back", low[1], kind=kind, double=True),', 'Notch("cap back", low[0] + 6, kind=kind, double=True),'),
    ("lower/trousers.py", "arrives = back_leg.leaving.turned(radians(at_fork - 180))",
     "arrives = back_leg.leaving.turned(radians(at_fork - 165))"),
    ("lower/trousers.py", "inner_knee = Point(2 * middle - outer_knee.x, -knee)", "inner_knee = Point(2 * middle - outer_knee.x + 9, -knee)"),
    ("style/panels.py", "return min(max((bust - under_bust) / 3, LEAST_ROUNDED), MOST_ROUNDED)", "return ROUNDED"),
    ("block/taste.py", "return self.front_hollow, self.back_hollow", "return self.back_hollow, self.front_hollow"),
    ("drafting.py", "near = Point(apex.x - share * intake,", "near = Point(apex.x - (1 - share) * intake,"),
    ("cutting/carry.py", "return Path.of(Line(underarm + lean * (underarm.y - level), underarm))",
     "return Path.of(Line(Point(out, level), underarm))"),
    ("steps/base.py", "return edge.drawn_length * (share if runs_from_start(edge, name) else 1 - share)",
     "return edge.drawn_length * (1 - share if runs_from_start(edge, name) else share)"),
    ("steps/hollow.py", "path.tangent_at(at).left * by(k / PLACES)", "path.tangent_at(at).left * -by(k / PLACES)"),
    ("steps/end.py", "by = down if inward else -down", "by = -down if inward else down"),
    ("steps/corner.py", "place = first.path.end + move", "place = first.path.end - move"),
    ("steps/dart.py", "apex = middle + (dart.apex - middle) * ((long - self.shorter) / long)",
     "apex = middle + (dart.apex - middle) * ((long + self.shorter) / long)"),
    ("steps/spread.py", "by += short / self.cuts", "by += 0.0"),
    ("steps/insert.py", "return Point(place.x, min(place.y, self.low) - self.amount)",
     "return Point(place.x, min(place.y, self.low) + self.amount)"),
    ("steps/cut_off.py", 'return middle if self.which == "above" else -middle', 'return -middle if self.which == "above" else middle'),
    ("cutting/spread.py", "low, high = at - amount / 2, at + amount / 2", "low, high = at - amount, at + amount"),
    ("shape.py", "if len(one) != len(other):", "if False:"),
    ("trim/faced_slit.py", "if piece.what.half is Half.BACK else piece", "if piece.what.half is Half.FRONT else piece"),
    ("trim/faced_slit.py", "low = top.y - self.height - wide", "low = top.y - self.height"),
    ("trim/faced_slit.py", "return _opened(faced.sewn(seam), 2 * self.height)", "return faced.sewn(seam)"),
    ("trim/binding.py", "notes.work(\"strip cut wide\", 4 * self.width", "notes.work(\"strip cut wide\", 2 * self.width"),
    ("trim/binding.py", "replace(e, allowance=0.0, turned=False", "replace(e, turned=False"),
    ("trim/pocket.py", "x = self.beside if self.measured == \"centre\" else right", "x = self.beside if self.measured == \"side\" else right"),
    ("trim/pocket.py", "Point(self.width - side, FLAP_ABOVE)", "Point(self.width + side, FLAP_ABOVE)"),
    ("trim/side_rings.py", "\"base\", 2 * along", "\"base\", along"),
    ("trim/collar.py", "over = over.between(0.0, over.length - self.slant)", "over = over.between(self.slant, over.length)"),
    ("trim/collar.py", "\"strip between its seams\", 4 * self.height", "\"strip between its seams\", 2 * self.height"),
    ("trim/inserted_peplum.py", "\"({waist} + 2 × {join}) ÷ 2π\"", "\"{waist} ÷ 2π\""),
    ("trim/inserted_peplum.py", "(waist + 2 * self.join) / tau", "(waist + self.join) / tau"),
    ("trim/two_cloths.py", "what=other, cut=1, turned_over=True", "what=other, cut=1, turned_over=False"),
    ("trim/two_cloths.py", 'elif f"{seam.name}, right" in names:', "elif False:"),
    ("steps/laced.py", "across = top + Point(self.width / 2, 0)", "across = top + Point(self.width, 0)"),
    ("steps/laced.py", "(k + 0.5) * long / count", "k * long / count"),
    ("steps/knot.py", "MIDST if upper else MIDST", "MIDST if upper else 1 - MIDST"),
    ("steps/line.py", "leave, back = begins.inward or leave, arrives.inward or back", "pass"),
    ("steps/line.py", "later = _joined(begins.near, line, arrives.far and arrives.far.reversed())",
     "later = _joined(begins.far, line, arrives.far and arrives.far.reversed())"),
    ("steps/princess.py", 'if table.pieces[one].darts_of("waist")), there[0])', "if True), there[0])"),
    ("style/tops.py", "along.dot(up) / along.dot(up.left)", "along.dot(up.left) / along.dot(up)"),
    ("upgrade.py", 'for half, usual in (("front", 150.0), ("back", 60.0)):', 'for half, usual in (("front", 60.0), ("back", 150.0)):'),
    ("upgrade.py", 'closed = "=dart" if style.get("top") == "one_shoulder" else "=seam"', 'closed = "=seam"'),
    ("kept_stages.py", "if kept.stage == stage and kept.given == given:", "if kept.stage == stage:"),
    ("kept_stages.py", "figure.asked_for(kept.asked)", "pass"),
    ("front_openings.py", "if piece.what.half is Half.FRONT and piece.what.layer in (Layer.OUTER, Layer.FACING)\n",
     "if piece.what.half is Half.FRONT and piece.what.layer is Layer.OUTER\n"),
    ("cutting/split.py", "if leg.length - at < from_point - HAIR:", "if True:"),
    ("finish.py", "if piece.what not in dress.unspread", "if True"),
    ("trim/ruffle.py", "at, stretch = along, Stretch(", "at, stretch = along + 5, Stretch("),
    ("trim/sleeve_rings.py", "            sleeve.cut * self.rings,", "            self.rings,"),
    ("trim/sleeve_rings.py", "radius, self.width, base / self.rings,", "radius, self.width, base / self.rings + 3,"),
    ("trim/sleeve_rings.py", "if hem.finished is not None:", "if False:"),
    ("band/band.py", "if 0 < share < 1", "if True"),
    ("lower/gores.py", '"gore at the waist", waists[0], "2 × ({front_waist}', '"gore at the waist", waists[0], "({front_waist}'),
    ("dressed/drawing.py", "{Seen.FRONT: Half.FRONT, Seen.BACK: Half.BACK}",
     "{Seen.FRONT: Half.BACK, Seen.BACK: Half.FRONT}"),
    ("dressed/views.py", "Seen.SIDE: (-y, -x)}",
     "Seen.SIDE: (y, -x)}"),
    ("dressed/surface.py", "return Half(-self.x, self.y",
     "return Half(self.x, self.y"),
    ("dressed/upper.py", "return share if half is Half.FRONT else 1.0 - share, z",
     "return share if half is Half.BACK else 1.0 - share, z"),
    ("dressed/hanging.py", "z = tops[None, :] - down",
     "z = tops[None, :] + down"),
    ("dressed/surface.py", "share = HELD_OUT[cloth.drape] * ",
     "share = 0.72 * "),
    ("dressed/hanging.py", "lengths = lengths - dart.intake *",
     "lengths = lengths - 0 * dart.intake *"),
    ("dressed/dressing.py", "upper.z - upper.z[-1]) / 2",
     "upper.z - upper.z[-1])"),
    ("dressed/views.py", "Seen.BACK: (-x, -y)",
     "Seen.BACK: (x, -y)"),
    ("steps/full_bust.py", "put = (self.lowered, self.moved) if path.start.x < path.end.x",
     "put = (self.moved, self.lowered) if path.start.x < path.end.x"),
    ("steps/let_out.py", "at_start, at_end = (self.top, self.foot) if from_top",
     "at_start, at_end = (self.foot, self.top) if from_top"),
    ("steps/let_out.py", "places.append(old.point_at(at) - old",
     "places.append(old.point_at(at) + old"),
    ("families.py", "else bodice or USUAL_DRAFT",
     "else USUAL_DRAFT"),
    ("sentences.py", "waits = tuple(k > 0 and",
     "waits = tuple("),
]  # fmt: skip


def planted(fault, folder):
    """What catches one fault: the failing test's name, or "" where nothing does; None where it cannot be planted."""
    file, old, new = fault
    path = folder / CORE / file
    whole = path.read_text()
    if old == new or old not in whole:
        return None
    path.write_text(whole.replace(old, new, 1))
    try:
        run = subprocess.run(
            [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", "-p", "no:randomly", *TESTS],
            cwd=ROOT, env={**os.environ, "PYTHONPATH": str(folder / "src")}, capture_output=True, text=True, check=False,
        )  # fmt: skip
    finally:
        path.write_text(whole)
    if run.returncode == 0:
        return ""
    failed = [line for line in run.stdout.splitlines() if line.startswith(("FAILED", "ERROR"))]
    return failed[0].split("::")[-1].split(" - ")[0] if failed else run.stdout[-80:]


def main(first, last):
    caught = tried = 0
    with tempfile.TemporaryDirectory() as place:
        folder = Path(place)
        shutil.copytree(ROOT / "src", folder / "src")
        for number, fault in enumerate(FAULTS[first:last], first + 1):
            by = planted(fault, folder)
            if by is None:
                print(f"{number:3} not planted: {fault[0]} has no such line", flush=True)
                continue
            tried, caught = tried + 1, caught + bool(by)
            print(f"{number:3} {'caught' if by else 'MISSED'} {fault[0]}: {fault[1][:60]!r} {by}", flush=True)
    print(f"{caught} of {tried} caught")


if __name__ == "__main__":
    bounds = [int(word) for word in sys.argv[1:]] or [0, len(FAULTS)]
    main(*bounds)
