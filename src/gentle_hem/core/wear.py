"""Can it be worn? (trade 10): getting in, sitting, walking, the floor, the weight.

in        without an opening the narrowest girth must pass the widest part it travels over
sit       a jumpsuit hangs from the shoulders and is stopped by the crotch: the trunk check
walk      the hem must let a step through, or a slit or vent must
floor     the hem clears it with the shoes on
"""

from __future__ import annotations

import itertools
from math import radians

from gentle_hem.core.cloth.cloths import Weight
from gentle_hem.core.estimates import Measures
from gentle_hem.core.figure import Figure, MeasureKey
from gentle_hem.core.findings import Finding, Remedy, in_recipe, note, stop, warn
from gentle_hem.core.lower.full import StraightCut
from gentle_hem.core.lower.gown import Gown
from gentle_hem.core.parts import OpeningPlace
from gentle_hem.core.recipe import Recipe, step_of, with_step
from gentle_hem.core.steps.front import ButtonStand, Keyhole
from gentle_hem.core.steps.neckline import NeckStep
from gentle_hem.core.trim.neck import NeckBand
from gentle_hem.core.workings import Percent, Ratio, Worked, Workings
from gentle_hem.core.worn import Worn

STEP_OF_HEIGHT = 0.41
"""A walking step is about 0.41 of the height: an estimate (trade 10)."""

SHORT = 0.75
"""A hem higher than such a share of the inside leg does not hinder a step."""

HEAD_EASE = 20.0
TRUNK_EASE = 20.0
"""A neckline passes the head with 2 cm to spare; a pattern's trunk exceeds the person's by 2 cm at least."""

LEAST_CLEARANCE, MOST_CLEARANCE = 10.0, 25.0
"""A floor-length hem clears the floor by 1-2.5 cm with the shoes on."""

USUAL_HEAD = 570.0
USUAL_DEPTH = 150.0
"""A neckline that is drawn deeper is at least so deep (mm)."""

THROUGH_THE_NECK = (OpeningPlace.CENTRE_BACK, OpeningPlace.CENTRE_FRONT)
"""Openings that go up to the neck edge."""

CROTCH_GAIN = 1.6
"""A crotch 1 mm deeper lengthens the crotch seam by at least this much, front and back together."""


def least_step_sweep(height: float, inside_leg: float, hem_height: float, leg_girth: float, notes: Workings) -> Worked:
    """Hem sweep for a walking step: 2 · step · (ℓ − h)/ℓ + leg girth there; step ≈ 0.41 × height. An estimate."""
    step = notes.work(
        "step",
        STEP_OF_HEIGHT * height,
        "{share} × {height}",
        rule="an estimate",
        share=Ratio(STEP_OF_HEIGHT),
        height=height,
    )
    share = max(0.0, (inside_leg - hem_height) / inside_leg)
    return notes.work(
        "least sweep for a step", 2 * step * share + leg_girth,
        "2 × {step} × ({inside_leg} − {hem_height}) ÷ {inside_leg} + {leg_girth}", rule="an estimate",
        step=step, inside_leg=inside_leg, hem_height=hem_height, leg_girth=leg_girth,
    )  # fmt: skip


def wear(recipe: Recipe, worn: Worn, notes: Workings) -> list[Finding]:
    """Every way in which the garment cannot be worn, with ways out."""
    notes = notes.about("wear")
    found = [
        *_against_the_body(recipe, worn),
        *_getting_in(recipe, worn),
        *_zip(recipe, worn),
        *_over_the_head(recipe, worn),
        *_band_over_the_head(recipe),
        *_fullness(recipe),
        *_floor(recipe, worn),
        *_weight(recipe, worn),
    ]
    if worn.trousers_crotch is not None:
        found += _trunk(recipe, worn, notes)
    else:
        found += _walking(recipe, worn, notes)
    return found


def _stretch(recipe: Recipe) -> float:
    """How many times as wide the outer cloth may be drawn round the body."""
    return 1 + recipe.cloths.outer.across / 100


def _against_the_body(recipe: Recipe, worn: Worn) -> list[Finding]:
    """Where the garment measures less than the body, beyond what its cloth stretches."""
    keys: tuple[tuple[str, MeasureKey, float | None], ...] = (
        ("bust", "bust_girth", worn.bust),
        ("waist", "waist_girth", worn.waist),
        ("hip", "hip_girth", worn.hip),
    )
    found = []
    for where, key, garment in keys:
        body = recipe.figure.get(key)
        if body is None or not garment or garment * _stretch(recipe) >= body - TOO_SMALL_FROM:
            continue
        found.append(
            warn(
                "smaller-than-body",
                "The garment measures {garment} at the {where} and the body {body}: it is {short} too small for cloth "
                "that stretches {stretch}.",
                *in_recipe("bodice" if where != "hip" else "lower", "cloths.outer.across"),
                where=where, garment=garment, body=body, short=body - garment,
                stretch=Percent(recipe.cloths.outer.across),
            )
        )  # fmt: skip
    return found


TOO_SMALL_FROM = 5.0
"""A girth is called too small from half a centimetre on (mm)."""

GATHERS = {Weight.HEAVY: (1.3, 1.7), Weight.MEDIUM: (1.7, 2.4), Weight.LIGHT: (2.2, 3.2), Weight.NET: (2.8, 8.0)}
"""How full cloth of a weight gathers: 1.5 heavy, 2 medium, 2.5-3 light, net 3 and more; common practice (trade 8)."""


def _fullness(recipe: Recipe) -> list[Finding]:
    """Whether the lower part is gathered as full as its cloth wants."""
    role = recipe.cloths.contrast if recipe.cloths.contrast_for == "lower" else recipe.cloths.outer
    fullness = getattr(recipe.lower, "fullness", 1.0)
    least, most = GATHERS.get(role.weight, (1.0, 8.0))
    if not isinstance(recipe.lower, StraightCut) or least <= fullness <= most or fullness <= 1.0:
        return []
    return [
        note(
            "fullness-for-cloth",
            "Cloth that is " + ("net" if role.weight is Weight.NET else role.weight.value) + " gathers about {usual} "
            "times; {fullness} times is " + ("thin." if fullness < least else "bulky."),
            *in_recipe("lower.fullness", "cloths.outer.weight"),
            usual=Ratio(USUAL_GATHERS[role.weight]), fullness=Ratio(fullness),
        )
    ]  # fmt: skip


USUAL_GATHERS = {Weight.HEAVY: 1.5, Weight.MEDIUM: 2.0, Weight.LIGHT: 2.5, Weight.NET: 3.0}


def _band_over_the_head(recipe: Recipe) -> list[Finding]:
    """A neck band that is closed must pass the head like a neckline."""
    if recipe.opening.place in THROUGH_THE_NECK:
        return []
    head, neck = recipe.figure.get("head_girth") or USUAL_HEAD, Measures(recipe.figure, Workings()).take("neck_girth")
    found = []
    for place, trim in enumerate(recipe.trims):
        if not isinstance(trim, NeckBand) or trim.ties or neck + trim.more >= head + HEAD_EASE:
            continue
        found.append(
            warn(
                "band-does-not-pass-head",
                "Closed, the neck band measures {band} round; a head of {head} needs {needed}. Open it behind, or give "
                "it ties.",
                *in_recipe(f"trims.{place}.more", "opening.place"),
                remedies=(Remedy("zip-back", "Open it at the centre back", {"opening.place": "centre_back"}, "", {}),),
                band=neck + trim.more, head=head, needed=head + HEAD_EASE,
            )
        )  # fmt: skip
    return found


def _getting_in(recipe: Recipe, worn: Worn) -> list[Finding]:
    stand = step_of(recipe, ButtonStand)
    buttoned = stand is not None
    all_down = stand is not None and (stand[1].down == "skirt" or isinstance(recipe.lower, Gown))
    if recipe.opening.place is not OpeningPlace.NONE or all_down:
        return []  # a zip, or buttons all the way down
    get = recipe.figure.get
    bust, shoulders, hip = get("bust_girth"), get("off_shoulder_girth"), get("hip_girth")
    over_head = max(bust or 0.0, shoulders or 0.0)
    ways = [girth for girth in (over_head, hip or 0.0) if girth > 0]
    if not ways or worn.waist * _stretch(recipe) >= min(ways):
        return []
    needed = min(ways)
    short = needed - worn.waist + 0.5
    remedies = [
        Remedy("zip-back", "Put a zip at the centre back", {"opening.place": "centre_back"}, "a seam at the back", {}),
        Remedy("zip-side", "Put a zip in the side seam", {"opening.place": "side"}, "no seam at the back", {}),
    ]
    words = recipe.bodice.waist_words()
    changes = {path: value + short * share for path, (value, share) in words.items()}
    if changes:
        remedies.append(
            Remedy(
                "elastic", "Make the waist {more} wider and draw it in with elastic",
                {**changes, "trims": [*_trims(recipe), {"kind": "elastic"}]}, "gathers at the waist", {"more": short},
            )
        )  # fmt: skip
    else:
        remedies.append(
            Remedy("belt", "Leave it loose and draw it in with a belt", {"trims": [*_trims(recipe), {"kind": "belt"}]},
                   "only if the bodice is cut that much wider", {})
        )  # fmt: skip
    return [
        stop(
            "cannot-be-got-into",
            "{opening}, and its waist of {waist} does not pass over {body}: it cannot be got into.",
            *in_recipe("opening.place"),
            remedies=tuple(remedies),
            opening="Its buttons open it only down to the waist seam" if buttoned else "There is no opening",
            waist=worn.waist,
            body=needed,
        )
    ]


def _zip(recipe: Recipe, worn: Worn) -> list[Finding]:
    """A zip that ends below the part it sits in opens it through the hem."""
    zip_end = recipe.opening.below_waist
    if recipe.opening.place is OpeningPlace.NONE or zip_end <= worn.below_waist:
        return []
    return [
        note(
            "zip-longer-than-part",
            "The zip would end {zip} below the waist, and the {part} is {long} long: it opens through the hem. Take a "
            "zip that separates, or a shorter one.",
            *in_recipe("opening.below_waist"),
            zip=zip_end, part=recipe.lower.title.lower(), long=worn.below_waist,
        )
    ]  # fmt: skip


def _trims(recipe: Recipe) -> list[dict[str, object]]:
    return [trim.model_dump(mode="json") for trim in recipe.trims]


def _over_the_head(recipe: Recipe, worn: Worn) -> list[Finding]:
    if worn.neck is None or recipe.opening.place in THROUGH_THE_NECK:
        return []
    if step_of(recipe, ButtonStand) is not None or step_of(recipe, Keyhole) is not None:
        return []
    head = recipe.figure.get("head_girth") or USUAL_HEAD
    if worn.neck >= head + HEAD_EASE:
        return []
    necks = [
        (place, step)
        for place, step in enumerate(recipe.steps)
        if isinstance(step, NeckStep) and step.on == "front" and not step.off
    ]
    deeper = max(necks[0][1].depth if necks else USUAL_DEPTH, 80.0) + (head + HEAD_EASE - worn.neck) / 1.6
    deep = {"kind": "neckline", "on": "front", "shape": "round", "depth": min(deeper, 600.0)}
    drawn = {f"steps.{place}.{word}": deep[word] for place, _ in necks[:1] for word in ("shape", "depth")}
    remedies = (
        Remedy("zip-back", "Open it at the centre back", {"opening.place": "centre_back"}, "", {}),
        Remedy("keyhole", "Give it a keyhole", with_step(recipe, {"kind": "keyhole"}), "", {}),
        Remedy(
            "deeper-neck",
            "Draw the front neckline {depth} deep",
            drawn or with_step(recipe, deep, first=True),
            "",
            {"depth": min(deeper, 600.0)},
        ),
    )
    return [
        warn(
            "neck-does-not-pass-head",
            "The neckline measures {neck} round; a head of {head} needs {needed}.",
            *in_recipe("steps", "opening.place"),
            remedies=remedies,
            neck=worn.neck,
            head=head,
            needed=head + HEAD_EASE,
        )
    ]


def _trunk(recipe: Recipe, worn: Worn, notes: Workings) -> list[Finding]:
    figure = recipe.figure
    trunk = figure.get("trunk_girth")
    if trunk is None:
        return [
            note(
                "trunk-not-measured",
                "Measure the trunk girth: a jumpsuit hangs from the shoulders and is stopped by the crotch.",
                *in_recipe("figure.measures.trunk_girth"),
            )
        ]
    measures = Measures(figure, Workings())
    front = worn.front_length if worn.front_length is not None else measures.take("front_waist_length")
    back = worn.back_length if worn.back_length is not None else measures.take("back_waist_length")
    crotch = worn.trousers_crotch or 0.0
    pattern = notes.work(
        "trunk of the pattern", front + crotch + back, "{front_length} + {crotch_length} + {back_length}",
        front_length=front, crotch_length=crotch, back_length=back,
    )  # fmt: skip
    short = trunk + TRUNK_EASE - pattern
    if short <= 0:
        return []
    ease = getattr(recipe.lower, "crotch_ease", 0.0) + short / CROTCH_GAIN + 1.0
    remedies = (
        (
            Remedy(
                "crotch",
                "Make the crotch {more} deeper",
                {"lower.crotch_ease": ease},
                "the legs hang lower",
                {"more": short / CROTCH_GAIN + 1.0},
            ),
        )
        if ease <= 150
        else ()
    )
    return [
        stop(
            "trunk-too-short",
            "Shoulder to crotch and back the pattern measures {pattern}; the trunk of {trunk} needs {needed} "
            "at least, or it "
            "cannot be sat down in.",
            *in_recipe("lower.crotch_ease"),
            remedies=remedies,
            pattern=float(pattern),
            trunk=trunk,
            needed=trunk + TRUNK_EASE,
        )
    ]


def leg_girth_at(height: float, measures: Measures) -> float:
    """The girth of one leg at a height above the floor, between ankle, knee and thigh."""
    inside = measures.take("inside_leg")
    ankle, knee, thigh = (measures.take(key) for key in ("ankle_girth", "knee_girth", "thigh_girth"))
    places = [(80.0, ankle), (inside * 0.57, knee), (inside, thigh)]
    if height <= places[0][0]:
        return ankle
    for (low, a), (high, b) in itertools.pairwise(places):
        if height <= high:
            return a + (b - a) * (height - low) / (high - low)
    return thigh


def step_sweep(figure: Figure, hem_height: float, notes: Workings | None = None) -> Worked | None:
    """The hem a step takes at a height above the floor (mm), an estimate; None where it is too high to hinder."""
    measures = Measures(figure, Workings())
    inside = measures.take("inside_leg")
    if hem_height >= SHORT * inside:
        return None
    girth = leg_girth_at(hem_height, measures)
    return least_step_sweep(measures.take("height"), inside, hem_height, girth, notes or Workings())


def _walking(recipe: Recipe, worn: Worn, notes: Workings) -> list[Finding]:
    floor = Measures(recipe.figure, Workings()).take("waist_to_floor")
    if worn.hem <= 0:
        return []
    least = step_sweep(recipe.figure, max(floor - worn.below_waist, 0.0), notes)
    if least is None or worn.hem + worn.opened >= least:
        return []
    missing = float(least) - worn.hem - worn.opened
    high = min(missing + 10, max(worn.below_waist - 100, 30.0))
    trims = _trims(recipe)
    remedies = [
        Remedy(
            "slit",
            "Leave a slit of {height} in one side seam",
            {"trims": [*trims, {"kind": "slit", "height": high, "place": "side"}]},
            "opens to the step",
            {"height": high},
        ),
        Remedy(
            "slits",
            "Leave slits of {height} in both side seams",
            {"trims": [*trims, {"kind": "slit", "height": max(high / 2, 25.0), "place": "sides"}]},
            "",
            {"height": max(high / 2, 25.0)},
        ),
    ]
    if recipe.opening.place is OpeningPlace.CENTRE_BACK and high <= 690:
        remedies.append(
            Remedy(
                "vent",
                "Give it a vent {height} high at the centre back",
                {"trims": [*trims, {"kind": "vent", "height": max(high, 65.0)}]},
                "needs a centre back seam",
                {"height": max(high, 65.0)},
            )
        )
    return [
        warn(
            "hem-too-narrow-to-walk",
            "The hem measures {hem} round; a walking step there takes about {least} (an estimate). It needs "
            "a slit or vent.",
            *in_recipe("lower.length", "trims"),
            remedies=tuple(remedies),
            hem=worn.hem,
            least=float(least),
        )
    ]


def _floor(recipe: Recipe, worn: Worn) -> list[Finding]:
    floor = recipe.figure.get("waist_to_floor")
    if floor is None:
        return []
    heel = recipe.figure.get("heel_height") or 0.0
    clear = floor + heel - worn.below_waist
    if clear < LEAST_CLEARANCE:
        return [
            warn(
                "hem-on-the-floor",
                "With the shoes on the hem clears the floor by {clear}; 1 to 2.5 cm is wanted. A hem or "
                "train that drags is a "
                "danger on stairs and escalators.",
                *in_recipe("lower.length", "figure.measures.heel_height"),
                clear=clear,
            )
        ]
    if clear < 120 and not recipe.figure.get("heel_height"):
        return [
            note(
                "say-the-heel",
                "A hem this near the floor is measured with the shoes on: say how high their heels are.",
                *in_recipe("figure.measures.heel_height"),
            )
        ]
    return []


def _weight(recipe: Recipe, worn: Worn) -> list[Finding]:
    sweep = getattr(recipe.lower, "sweep", 0.0)
    if radians(sweep) >= 6.2 and worn.below_waist >= 800:
        return [
            note(
                "stay-the-waist",
                "A long full circle pulls on its waist seam: put a stay tape in it.",
                *in_recipe("lower.sweep"),
            )
        ]
    return []
