"""A garment as the screen wants it: strokes to draw, words to click, texts already in the asker's unit."""

from collections.abc import Sequence

from gentle_hem.api.shown import (
    BodiceChoice,
    ChoiceOut,
    ComparedOut,
    ComparedRow,
    DraftOut,
    DressOut,
    EdgeOut,
    InkOut,
    JoinOut,
    LevelOut,
    MarkOut,
    MateOut,
    PartChoiceOut,
    PieceOut,
    PointOut,
    RunOut,
    ScreenOut,
    SeamOut,
    SectionOut,
    SentencePartOut,
    SheetOut,
    StageFinding,
    StepOut,
    TieOut,
    UnrolledOut,
    ViewOut,
    WordOut,
)
from gentle_hem.core.compare import Comparison
from gentle_hem.core.drafting import DRAFT_GAP, Step, laid_open
from gentle_hem.core.fault import fault
from gentle_hem.core.findings import Finding, Place
from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Line, Path, Placement, Point
from gentle_hem.core.geometry.path_text import path_for_screen
from gentle_hem.core.join import Unrolled
from gentle_hem.core.joined import lights_up
from gentle_hem.core.lower.gown import Gown
from gentle_hem.core.pattern import Edge, Piece
from gentle_hem.core.recipe import Recipe, spoken_parts
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run
from gentle_hem.core.sentences import LiveWord, SpokenPart, Word
from gentle_hem.core.stages import stage_of
from gentle_hem.core.start import (
    PartChoice,
    allowance_choices,
    band_choices,
    bodice_choices,
    lower_choices,
    step_choices,
    trim_choices,
)
from gentle_hem.core.steps.base import acted_on
from gentle_hem.core.steps.join import JoinPieces
from gentle_hem.core.tongue import named
from gentle_hem.core.units import Said, Tape, format_length, tape
from gentle_hem.core.walk import ACCEPTABLE_OFFSET, INVISIBLE_OFFSET, SEAM_TOLERANCE, WAIST_SEAM, Walked, sentence
from gentle_hem.core.what import What
from gentle_hem.formats.broken import Shown, shown_pieces
from gentle_hem.formats.drawing import Ink, Laid, lay_to_fill, strokes
from gentle_hem.formats.garment_document import (
    finding_document,
    remedy_document,
    workings_documents,
)

SHEET_SHAPE = 0.9
"""Width to height of the sheet on screen, which the pieces are laid out to fill."""


def signed(value: float, unit: Said) -> str:
    """A difference with its sign: "+1.4 cm", "0.0 cm"."""
    text = format_length(value, unit)
    nothing = format_length(0.0, unit)
    return text if text in (nothing, f"-{nothing}") or value < 0 else f"+{text}"


def screen(recipe: Recipe, garment: Garment, said: Said) -> ScreenOut:
    """A recipe and what it makes, for the screen."""
    unit = tape(said)
    shown = shown_pieces(garment.pieces)
    laid, width, height = lay_to_fill([one.piece for one in shown], SHEET_SHAPE)
    drawn = list(zip(laid, garment.pieces, shown, strict=True))
    mates = _mates(garment.seams, unit)
    dress, faults = _dress(recipe, garment, unit)
    places = {
        f"steps.{k}": lights_up(step, garment) if isinstance(step, JoinPieces) else acted_on(step, garment.pieces)
        for k, step in enumerate(recipe.steps)
    }
    return ScreenOut(
        recipe=recipe.model_dump(mode="json"),
        unit=unit.unit,
        sentences=[
            _sentences(part, unit, _refused(garment), places.get(part.where, ())) for part in spoken_parts(recipe, unit)
        ],
        dress=dress,
        sheet=SheetOut(width=width, height=height, pieces=[_piece(*one, mates, unit) for one in drawn]),
        joins=_joins(garment, unit),
        seams=[_seam(walked, unit) for walked in garment.seams],
        findings=[
            StageFinding(**finding_document(finding, unit).model_dump(), stage=stage_of(finding, garment))
            for finding in (*garment.findings, *faults)
        ],
        workings=workings_documents(garment.workings, unit),
        ready=garment.is_ready_to_cut,
        draft=_draft(garment.draft, unit),
        bodices=[
            BodiceChoice(kind=kind, title=bodice.title, bodice=bodice.model_dump(mode="json"))
            for kind, bodice in bodice_choices(recipe, garment)
        ],
        lowers=_choices(lower_choices(recipe)),
        bands=_choices(band_choices(recipe)),
        allowances=_choices(allowance_choices(recipe)),
        steps=STEPS_OUT,
        trims=TRIMS_OUT,
        is_cut=_is_cut(recipe, garment),
    )


def _is_cut(recipe: Recipe, garment: Garment) -> bool | None:
    if isinstance(recipe.lower, Gown) or not any(seam.name == WAIST_SEAM for seam in garment.seams):
        return None
    return recipe.cut is not None


VIEW_EDGE = 25.0
"""Round a view so much is left free (mm)."""


def _dress(recipe: Recipe, garment: Garment, unit: Tape) -> tuple[DressOut, list[Finding]]:
    """The drawn dress; where drawing it fails that is said, and the rest of the screen goes on without it."""
    from gentle_hem.core.dressed import drawn_dress  # here, to keep numpy and shapely out of the start
    from gentle_hem.formats.dress import dress_paths, reach

    try:
        dress = drawn_dress(recipe, garment)
    except Exception as error:
        return DressOut(views=[], levels=[]), [fault("drawn dress", error)]
    views = []
    for seen, inks in dress.views.items():
        low, high = reach(inks)
        box = (low - VIEW_EDGE, -dress.top - VIEW_EDGE, high - low + 2 * VIEW_EDGE, dress.top + 3 * VIEW_EDGE)
        paths = [  # hundreds of lines that the core has just drawn: nothing in them is to be checked
            InkOut.model_construct(ink=path.drawn, d=path.d, piece=path.piece, edge=path.edge, colour=path.colour)
            for path in dress_paths(dress, seen)
        ]
        views.append(ViewOut(seen=seen.value, box=box, paths=paths))
    levels = [
        LevelOut(
            name=level.name, at=level.height, height=format_length(level.height, unit),
            girth=format_length(level.girth, unit),
        )
        for level in dress.levels
    ]  # fmt: skip
    return DressOut(views=views, levels=levels), []


def _choices(parts: list[PartChoice]) -> list[PartChoiceOut]:
    return [PartChoiceOut(kind=kind, title=title, part=part.model_dump(mode="json")) for kind, title, part in parts]


TRIMS_OUT = _choices(trim_choices())
STEPS_OUT = _choices(step_choices())


def _draft(steps: tuple[Step, ...], unit: Tape) -> DraftOut | None:
    """The steps with the back turned over and laid to the right of the front; None where nothing was drafted."""
    if not steps:
        return None
    laid = laid_open(steps)
    return DraftOut(
        box=(0, 0, laid.width, laid.depth),
        steps=[
            StepOut(
                half=step.half,
                text=step.text(unit),
                strokes=[path_for_screen(path.placed(laid.put[step.half])) for path in step.strokes],
                points=[
                    PointOut(name=name, x=place.x, y=-place.y)
                    for name, place in ((n, laid.put[step.half].place(p)) for n, p in step.points.items())
                ],
            )
            for step in steps
        ],
    )


def compared(comparison: Comparison, unit: Said) -> ComparedOut:
    """Both drafts for the screen, the back to the right of the front."""
    front, back = comparison.halves
    apart = max(piece.seam_line.box[2] for piece in front) - min(piece.seam_line.box[0] for piece in back)
    put = (Placement(), Placement.shift(Point(apart + DRAFT_GAP, 0)))
    low = min(piece.seam_line.box[1] for pair in comparison.halves for piece in pair)
    high = max(piece.seam_line.box[3] for pair in comparison.halves for piece in pair)

    def outlines(which: int) -> list[str]:
        lines = []
        for pair, placement in zip(comparison.halves, put, strict=True):
            piece = pair[which]
            lines.append(path_for_screen(piece.seam_line.placed(placement), closed=True))
            for dart in piece.darts:
                near, far = piece.dart_legs(dart)
                lines.append(path_for_screen(Path.through(near, dart.apex, far).placed(placement)))
        return lines

    return ComparedOut(
        mine=comparison.mine.title,
        theirs=comparison.theirs.title,
        box=(0, -high, apart + DRAFT_GAP, high - low),
        my_outlines=outlines(0),
        their_outlines=outlines(1),
        rows=[
            ComparedRow(
                label=row.label, mine=format_length(row.mine, unit), theirs=format_length(row.theirs, unit),
                difference=signed(row.difference, unit),
            )
            for row in comparison.rows
        ],
    )  # fmt: skip


def _refused(garment: Garment) -> set[str]:
    """The words of the recipe, or whole parts, that ask for what is not in the garment."""
    return {place.recipe for finding in garment.findings if finding.refuses for place in finding.at}


def _sentences(part: SpokenPart, unit: Tape, refused: set[str], places: Sequence[Place]) -> SentencePartOut:
    lines: list[list[str | WordOut]] = []
    for line in part.lines:
        out: list[str | WordOut] = []
        for token in line:
            if isinstance(token, str):
                out.append(token)
                continue
            word = token.word
            out.append(
                WordOut(
                    path=token.path,
                    text=token.text,
                    typed=_as_typed(token, unit),
                    value=token.value,
                    sort=word.sort,
                    label=named(word.label),
                    help=word.help,
                    choices=[ChoiceOut(value=value, text=named(text)) for value, text in word.choices],
                    optional=bool(word.without),
                    struck=token.path in refused or part.where in refused,
                )
            )
        lines.append(out)
    acts_on = [(place.piece, place.edge) for place in places]
    return SentencePartOut(where=part.where, title=part.title, lines=lines, waits=list(part.waits), acts_on=acts_on)


def _as_typed(token: LiveWord, unit: Tape) -> str:
    """A word as it would be typed: its number, whatever name it goes by in its sentence."""
    if token.value is None:
        return ""
    if token.word.sort == "length":
        return format_length(token.value, unit)
    if token.word.sort != "share":
        return token.text
    unnamed: Word = replace(token.word, choices=())
    return unnamed.say(token.value, unit)


def _mates(seams: tuple[Walked, ...], unit: Tape) -> dict[tuple[What, str], list[MateOut]]:
    found: dict[tuple[What, str], list[MateOut]] = {}
    for walked in seams:
        text = f"{named(walked.verdict.value)}, {signed(walked.difference, unit)}"
        runs = ((walked.seam.a, walked.seam.b), (walked.seam.b, walked.seam.a))
        for mine, theirs in runs[:1] if walked.seam.is_of_itself else runs:
            for ref in dict.fromkeys(mine.stretches):
                for other in dict.fromkeys(theirs.stretches):
                    mate = MateOut(
                        piece=other.piece.name, edge=other.edge, seam=walked.name,
                        verdict=walked.verdict.value, text=text,
                    )  # fmt: skip
                    found.setdefault((ref.piece, ref.edge), []).append(mate)
    return found


def _piece(
    item: Laid, whole: Piece, shown: Shown, mates: dict[tuple[What, str], list[MateOut]], unit: Tape
) -> PieceOut:
    """A piece as it is drawn, which may be with a break, and its lengths, which are those of the whole of it."""
    piece = item.piece
    drawn: dict[Ink, list[str]] = {ink: [] for ink in Ink}
    for stroke in strokes(piece):
        drawn[stroke.ink].append(path_for_screen(stroke.path.placed(item.placement), stroke.closed))
    left, bottom, right, top = piece.cut_line.placed(item.placement).box
    low, foot, high, head = whole.cut_line.box
    return PieceOut(
        name=piece.name,
        material=named(piece.cloth.value),
        cut=piece.cut,
        on_fold=piece.on_fold,
        remark=piece.remark,
        width=format_length(high - low, unit),
        height=format_length(head - foot, unit),
        box=(left, -top, right - left, top - bottom),
        cut_line=path_for_screen(piece.cut_line.placed(item.placement), True),
        cut_strokes=" ".join(drawn[Ink.CUT]),
        seam_line=" ".join(drawn[Ink.SEAM]),
        grain=drawn[Ink.GRAIN],
        fold=drawn[Ink.FOLD],
        notches=drawn[Ink.NOTCH],
        internal=[*drawn[Ink.INTERNAL], *drawn[Ink.DRILL]],
        heart=_heart(piece, item.placement),
        breaks=[path_for_screen(wave.placed(item.placement)) for wave in shown.waves],
        edges=[_edge(whole, edge, item, mates, unit) for edge in piece.edges],
    )


def _heart(piece: Piece, put: Placement) -> tuple[float, float]:
    """The middle of the widest stretch of a piece half-way up, where it lies on the sheet (y down)."""
    left, bottom, right, top = piece.seam_line.box
    level = (bottom + top) / 2
    met = piece.seam_line.met_along(Line(Point(left - 1, level), Point(right + 1, level)))
    stretches = list(zip(met[::2], met[1::2], strict=False))
    first, last = max(stretches, key=lambda one: one[1] - one[0], default=(0.0, right - left + 2))
    place = put.place(Point(left - 1 + (first + last) / 2, level))
    return place.x, -place.y


def _edge(whole: Piece, edge: Edge, item: Laid, mates: dict[tuple[What, str], list[MateOut]], unit: Tape) -> EdgeOut:
    path = edge.path.placed(item.placement)
    middle, along = path.point_at(path.length / 2), path.tangent_at(path.length / 2)
    return EdgeOut(
        name=edge.name,
        role=edge.role.value,
        d=path_for_screen(path),
        length=format_length(whole.stitched_length(edge.name), unit),
        drawn_length=format_length(whole.edge(edge.name).drawn_length, unit),
        allowance=format_length(edge.allowance, unit),
        middle=(middle.x, -middle.y),
        outward=(along.y, along.x),
        mates=mates.get((whole.what, edge.name), []),
    )


def _unrolled(edge: Unrolled, times: int, unit: Tape) -> UnrolledOut:
    return UnrolledOut(
        length=edge.length,
        text=format_length(edge.length, unit),
        whole=format_length(times * edge.length, unit),
        landmarks=[MarkOut(name=mark.name, at=mark.at) for mark in edge.landmarks],
        runs=[
            RunOut(piece=run.piece.name, edge=run.edge, length=run.length, text=format_length(run.length, unit))
            for run in edge.runs
        ],
    )


def _why(run: Run, places: dict[int, int]) -> int | None:
    """The working that says how one side of a seam came to its length, by its place; None where there is none."""
    return None if run.why is None else places.get(id(run.why.working))


def _joins(garment: Garment, unit: Tape) -> list[JoinOut]:
    """Every seam as it is seen on the ribbon, those that join two sections first."""
    places = {id(working): k for k, working in enumerate(garment.workings)}
    inner = (walked for walked in garment.seams if not walked.seam.is_join)
    return [_join(walked, places, unit) for walked in (*garment.joins, *inner)]


def _join(report: Walked, places: dict[int, int], unit: Tape) -> JoinOut:
    ties = [
        TieOut(
            name=tie.name, upper=tie.upper, lower=tie.lower, offset=signed(tie.offset, unit),
            state="meets" if abs(tie.offset) <= INVISIBLE_OFFSET
            else "hidden" if abs(tie.offset) <= ACCEPTABLE_OFFSET else "off",
        )
        for tie in report.ties
    ]  # fmt: skip
    sections = [
        SectionOut(
            start=s.start, end=s.end, upper=format_length(s.upper, unit), lower=format_length(s.lower, unit),
            difference=signed(s.difference, unit),
            state="meets" if abs(s.difference) <= SEAM_TOLERANCE else "off",
        )
        for s in report.sections
    ]  # fmt: skip
    return JoinOut(
        upper_why=_why(report.seam.a, places),
        lower_why=_why(report.seam.b, places),
        name=report.name,
        upper=_unrolled(report.upper, report.times, unit),
        lower=_unrolled(report.lower, report.times, unit),
        verdict=report.verdict.value,
        meets=report.verdict.fits,
        difference=signed(report.difference, unit),
        whole_difference=signed(report.times * report.difference, unit),
        sentence=sentence(report, unit),
        ties=ties,
        sections=sections,
        remedies=[remedy_document(remedy, unit) for remedy in report.remedies],
        upper_name=report.upper_name,
        lower_name=report.lower_name,
        fullness=report.fullness,
        cut=format_length(report.times * report.lower.length * report.fullness, unit),
        halved=report.times == 2,
        between_sections=report.seam.is_join,
    )


def _seam(walked: Walked, unit: Tape) -> SeamOut:
    return SeamOut(
        name=walked.name,
        length_a=format_length(walked.length_a, unit),
        length_b=format_length(walked.length_b, unit),
        difference=signed(walked.difference, unit),
        verdict=named(walked.verdict.value),
        walks=walked.verdict.fits,
    )
