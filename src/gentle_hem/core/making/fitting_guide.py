"""What is seen at a fitting, what it is likely to come from, and what to try (trade 13.2).

seen ── likely
  └── try ── what the amount means ── the change of the recipe that does it

A try is a step at the end of the recipe's list, so that it is undone, left off or altered as any other; where no step
does it, it is a word of the recipe.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from gentle_hem.core.lower.trousers import Trousers
from gentle_hem.core.pattern import Role
from gentle_hem.core.recipe import Recipe, with_step
from gentle_hem.core.steps import STEPS
from gentle_hem.core.steps.base import OneSide
from gentle_hem.core.units import inches
from gentle_hem.core.what import Half

Region = Literal["neck", "shoulder", "armhole", "bust", "back", "waist", "hip", "hem", "trousers"]
Steps = Callable[[float], tuple[dict[str, Any], ...]]

SIDED = {step.model_fields["kind"].default: step.sided for step in STEPS}
"""Whether a kind of step can be done on one side."""


@dataclass(frozen=True, slots=True)
class Try:
    """What may be done about it: its name, what its amount means, the usual amount (mm), and the steps that do it.

    Records know it by its code, which never changes its meaning.
    """

    code: str
    title: str
    amount_is: str
    usual: float
    steps: Steps | None = None
    word: str = ""
    """The word of the recipe that is changed by the amount instead, where no step does it."""
    sign: float = 1.0
    of_block: bool = True
    """Whether it belongs in the person's block, where it comes again: not what depends on this dress alone."""

    takes: tuple[Half, Role] | None = None
    """The edge that is to be shorter by the amount, where the step's own amount is the width of a wedge across it."""
    elsewhere: tuple[Steps, ...] = ()
    """The same at another place, where it cannot be done at the first."""

    @property
    def is_sided(self) -> bool:
        """Whether it can be done on her left or her right alone."""
        ways = () if self.steps is None else (self.steps, *self.elsewhere)
        return bool(ways) and all(SIDED[step["kind"]] for steps in ways for step in steps(self.usual))

    def changes(self, recipe: Recipe, amount: float, side: OneSide = "both") -> Iterator[dict[str, Any]]:
        """The changes of a recipe that do it, on both sides or one, the first that can be done to be taken."""
        if self.steps is None:
            yield {self.word: max(float(_at(recipe, self.word)) + self.sign * amount, 0.0)}
            return
        for steps in (self.steps, *self.elsewhere):
            one_side = {} if side == "both" else {"side": side}
            yield with_step(recipe, *({**step, **one_side} for step in steps(amount)))


@dataclass(frozen=True, slots=True)
class Seen:
    """Something that is seen, and what it is likely to come from."""

    code: str
    region: Region
    seen: str
    likely: str
    tries: tuple[Try, ...]


def _at(recipe: Recipe, word: str) -> Any:
    part: Any = recipe
    for name in word.split("."):
        part = getattr(part, name)
    return part


def _step(kind: str, by: str, sign: float = 1.0, **rest: Any) -> Steps:
    return lambda amount: ({"kind": kind, by: sign * amount, **rest},)


def _at_levels(sign: float) -> tuple[Steps, ...]:
    """A level that runs through no dart: under the blades, or nearer the waist."""
    return tuple(_step("insert", "amount", sign, part="bodice", level=level) for level in (370.0, 290.0, 400.0, 250.0))


QUARTER, HALF_INCH = inches(0.25), inches(0.5)

GUIDE: tuple[Seen, ...] = (
    Seen("neck_stands_off", "neck", "the neckline stands off", "the chest is hollower, or the neck too wide", (
        Try("neck_wedge", "Pinch a wedge out of the front neck, into the waist dart", "off its length, each half",
            QUARTER, _step("wedge", "amount", edge="neckline"), takes=(Half.FRONT, Role.NECKLINE)),
        Try("back_neck_wedge", "Pinch a wedge out of the back neck", "off its length, each half", QUARTER,
            _step("pinch", "amount", edge="neckline", hinge="waist", on="back", share=0.5, hinge_share=0.5),
            takes=(Half.BACK, Role.NECKLINE)),
    )),
    Seen("neck_cuts_in", "neck", "the neck cuts in, or is pulled back", "the neck is too high, the shoulders forward", (
        Try("lower_front_neck", "Lower the front neck at the centre", "lower", HALF_INCH,
            _step("lower_end", "amount", edge="neckline", on="front", end="near")),
        Try("raise_back_neck", "Lift the back neck at the centre", "higher", QUARTER,
            _step("lower_end", "amount", -1, edge="neckline", on="back", end="near")),
    )),
    Seen("neck_too_low", "neck", "the neck lies too low", "it was drawn or cut too deep", (
        Try("raise_front_neck", "Raise the front neck at the centre", "higher", HALF_INCH,
            _step("lower_end", "amount", -1, edge="neckline", on="front", end="near"), of_block=False),
    )),
    Seen("folds_under_back_neck", "back", "folds lie across under the back neck",
         "the shoulders are squarer than drafted, or the back is too long above the blades", (
        Try("raise_tips", "Raise the shoulder tips", "higher at the tip", QUARTER,
            _step("corner", "up", corner="shoulder tip", on="both", out=0)),
        Try("lower_back_neck", "Lower the back neck at the centre", "lower", QUARTER,
            _step("lower_end", "amount", edge="neckline", on="back", end="near")),
    )),
    Seen("folds_down_back", "back", "folds hang down the back", "the back is too wide", (
        Try("in_at_centre_back", "Take the centre back in", "in, each half", QUARTER,
            lambda amount: ({"kind": "let_out", "edge": "centre", "on": "back", "top": -amount, "middle": -amount,
                             "share": 0.5, "foot": -amount},)),
    )),
    Seen("bulge_at_zip", "back", "folds lie across the hollow of the back, and the zip bulges",
         "the back is too long at the waist", (
        Try("drop_back_waist", "Make the bodice shorter at the centre back", "shorter at the centre back", HALF_INCH,
            lambda amount: ({"kind": "zip_contour", "taken": 0, "give_back": "none", "drop": min(amount, 30.0)},)),
        Try("contour_zip", "Contour the centre back under the zip", "in at the waist", inches(0.75),
            lambda amount: ({"kind": "zip_contour", "taken": min(amount, 40.0)},)),
    )),
    Seen("drag_from_tip", "shoulder", "the cloth drags from the shoulder tip to the armhole",
         "the shoulder is drawn too flat or too steep", (
        Try("raise_tip", "Raise the shoulder tip", "higher at the tip", QUARTER,
            _step("corner", "up", corner="shoulder tip", on="both", out=0)),
        Try("drop_tip", "Drop the shoulder tip", "lower at the tip", QUARTER,
            _step("corner", "up", -1, corner="shoulder tip", on="both", out=0)),
    )),
    Seen("tip_stands_out", "shoulder", "the shoulder tip stands out", "the shoulder is too long or too pointed", (
        Try("narrow_shoulder", "Take the shoulder tip in", "in at the tip", QUARTER,
            _step("corner", "out", -1, corner="shoulder tip", on="both", up=0)),
    )),
    Seen("armhole_tight", "armhole", "the armhole is tight, and the cloth creases at the arm",
         "it is too high, or there is too little width", (
        Try("lower_armhole", "Lower the armhole at the underarm", "lower", HALF_INCH,
            _step("corner", "up", -1, corner="underarm", on="both", out=0)),
        Try("armhole_more_across", "Let the armhole out", "wider, half-way round", QUARTER,
            _step("hollow", "amount", -1, edge="armhole", on="both", share=0.5)),
    )),
    Seen("armhole_gapes", "armhole", "the armhole gapes in front", "the bust is fuller than drafted", (
        Try("armhole_wedge", "Pinch a wedge out of the front armhole, into the waist dart", "off its length", QUARTER,
            _step("wedge", "amount", edge="armhole"), takes=(Half.FRONT, Role.ARMHOLE)),
    )),
    Seen("folds_at_bust", "bust", "folds point at the bust from the side or the shoulder",
         "there is too little length or width over the bust", (
        Try("full_bust", "More for a full bust, with a dart at the side", "opened at the bust point, each half",
            inches(0.5), _step("full_bust", "amount")),
    )),
    Seen("side_tight", "waist", "the sides pull, or the seam strains", "there is too little width", (
        Try("let_out_bodice_side", "Let the sides of the bodice out", "out, each side of the seam", QUARTER,
            lambda amount: ({"kind": "let_out", "edge": "side", "on": "both", "top": amount, "middle": amount,
                             "share": 0.5, "foot": amount},)),
    )),
    Seen("side_loose", "waist", "the sides stand away", "there is too much width", (
        Try("take_in_bodice_side", "Take the sides of the bodice in", "in, each side of the seam", QUARTER,
            lambda amount: ({"kind": "let_out", "edge": "side", "on": "both", "top": -amount, "middle": -amount,
                             "share": 0.5, "foot": -amount},)),
    )),
    Seen("waist_pulls_up", "waist", "the waist seam pulls up", "the bodice is too short; it is never stretched", (
        Try("longer_bodice", "Let the bodice down all round", "longer", HALF_INCH,
            _step("insert", "amount", part="bodice", level=330), elsewhere=_at_levels(1)),
    )),
    Seen("bodice_long", "waist", "the bodice folds above the waist seam", "the bodice is too long", (
        Try("shorter_bodice", "Shorten the bodice all round", "shorter", HALF_INCH,
            _step("insert", "amount", -1, part="bodice", level=330), elsewhere=_at_levels(-1)),
    )),
    Seen("folds_over_hip", "hip", "folds lie across the front hip", "the hip is too tight, or its curve too round", (
        Try("out_at_hip", "Let the side out at the hip", "out at the hip, each side of the seam", QUARTER,
            lambda amount: ({"kind": "let_out", "part": "lower", "edge": "side", "on": "both", "top": 0,
                             "middle": amount, "share": 0.25, "foot": 0},)),
    )),
    Seen("swings_forward", "hip", "the skirt swings forward and its hem is up at the back", "the seat is fuller", (
        Try("longer_centre_back", "More length at the centre back waist", "longer at the centre back", HALF_INCH,
            _step("corner", "up", part="lower", corner="centre waist", on="back", out=0)),
    )),
    Seen("up_in_front", "hem", "the hem is up in front", "the belly is fuller", (
        Try("longer_centre_front", "More length at the centre front waist", "longer at the centre front", HALF_INCH,
            _step("corner", "up", part="lower", corner="centre waist", on="front", out=0)),
    )),
    Seen("side_hangs_crooked", "hem", "the side of the skirt hangs crooked", "the waist is not level", (
        Try("raise_side_waist", "Raise the waist at the side", "higher at the side", QUARTER,
            _step("corner", "up", part="lower", corner="side waist", on="both", out=0)),
        Try("lower_side_waist", "Lower the waist at the side", "lower at the side", QUARTER,
            _step("corner", "up", -1, part="lower", corner="side waist", on="both", out=0)),
    )),
    Seen("hem_low", "hem", "it is too long", "it has grown as it hung, or it was cut too long", (
        Try("shorten_lower", "Shorten it", "shorter", inches(1), word="lower.length", sign=-1, of_block=False),
    )),
    Seen("hem_high", "hem", "it is too short", "it was cut too short", (
        Try("lengthen_lower", "Lengthen it", "longer", inches(1), word="lower.length", of_block=False),
    )),
    Seen("crotch_cuts", "trousers", "the crotch cuts in, or folds point at it", "its depth or its fork is too short", (
        Try("deeper_crotch", "Deepen the crotch", "deeper", HALF_INCH, word="lower.crotch_ease"),
        Try("longer_fork", "Extend the back fork", "longer", HALF_INCH, word="lower.back_crotch"),
    )),
    Seen("crotch_hangs", "trousers", "the crotch hangs low", "it is too deep, or the trunk too long", (
        Try("raise_crotch", "Raise the crotch", "higher", HALF_INCH, word="lower.crotch_ease", sign=-1),
    )),
)  # fmt: skip

BY_CODE: Mapping[str, Seen] = {seen.code: seen for seen in GUIDE}
TRIES: Mapping[str, Try] = {one.code: one for seen in GUIDE for one in seen.tries}


def fits(seen: Seen, recipe: Recipe) -> bool:
    """Whether it can be seen on this dress at all."""
    if seen.region == "trousers":
        return isinstance(recipe.lower, Trousers)
    return all(_has(recipe, one.word) for one in seen.tries)


def _has(recipe: Recipe, word: str) -> bool:
    return not word or hasattr(getattr(recipe, word.split(".")[0]), word.split(".")[1])


OFTEN = 3
"""A note that comes so often for one person belongs in her block."""
