"""Patterns on every paper: tiles, whole sheets, a roll, trials. Read back by pdfplumber."""

import io
import itertools
import json
from pathlib import Path

import pdfplumber
import pytest
from fastapi import HTTPException
from pytest import approx

from gentle_hem.api.sheets import sheet_size
from gentle_hem.core.cutting.open_out import opened_out
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe
from gentle_hem.core.units import Unit
from gentle_hem.formats.files import FILE_WRITERS, Order
from gentle_hem.formats.labels import Tag
from gentle_hem.formats.paper import MARGIN, Joins, Lines, Paper, Printing, Scale
from gentle_hem.formats.pdf import printed_sheet
from long import examples
from readers import polygon

POINT = 25.4 / 72
MERMAID = read_recipe(json.loads(Path("examples/mermaid-gown.recipe.json").read_text()))
SKIRT = read_recipe(json.loads(Path("examples/quarter-flare.recipe.json").read_text()))


def printed(recipe, printing):
    content = FILE_WRITERS["pattern.pdf"](Order(recipe, make_up(recipe), printing))
    return pdfplumber.open(io.BytesIO(content))


def sheets(recipe, printing):
    garment = make_up(recipe)
    return printed_sheet(garment, printing, Tag.of(recipe, garment), recipe.unit)


def crosses(page):
    """The four alignment marks of a page: where lines of 8 mm cross upright and level (mm from its lower left)."""
    level, upright = set(), set()
    for line in page.lines:
        x0, x1 = sorted((line["x0"] * POINT, line["x1"] * POINT))
        y0, y1 = sorted((line["y0"] * POINT, line["y1"] * POINT))
        if abs(x1 - x0 - 8) < 0.02 and y1 - y0 < 0.01:
            level.add((round((x0 + x1) / 2, 2), round(y0, 2)))
        if abs(y1 - y0 - 8) < 0.02 and x1 - x0 < 0.01:
            upright.add((round(x0, 2), round((y0 + y1) / 2, 2)))
    return sorted(level & upright)


def longest(page):
    """Where the longest line of the pattern begins on a page (mm from its lower left), by its own first point."""
    curve = max(page.curves, key=lambda c: len(c["pts"]) * 1000 + abs(c["x1"] - c["x0"]))
    x, y = curve["pts"][0]
    return x * POINT, (float(page.height) - y) * POINT


SHEETED = [(Paper.A4, Joins.OVERLAP), (Paper.LETTER, Joins.BUTT)][: examples(1, 2)]


@pytest.mark.parametrize(("paper", "joins"), SHEETED)
def test_edges_meet_again_over_the_tiles_when_crosses_are_laid_on_crosses(paper, joins):
    """From page to page by the crosses alone, more than a metre along and down: the drawing lies where the pages do."""
    printing = Printing(paper, joins=joins)
    _, tiles, _ = sheets(MERMAID, printing)
    at = {(tile.row, tile.column): k for k, tile in enumerate(tiles, 1)}
    with printed(MERMAID, printing) as pdf:
        assert len(pdf.pages) == len(tiles) + 1
        assert all(len(crosses(page)) == 4 for page in pdf.pages[1:])
        for along, step in ((0, (0, 1)), (1, (1, 0))):
            run = max((run_from(at, start, step) for start in at), key=len)
            begun, moved = longest(pdf.pages[at[run[0]]]), (0.0, 0.0)
            for here, after in itertools.pairwise(run):
                mine, theirs = crosses(pdf.pages[at[here]]), crosses(pdf.pages[at[after]])
                # the marks of this page's right or lower edge come to lie on those of the next one's left or upper edge
                on, under = (mine[2], theirs[0]) if along == 0 else (mine[0], theirs[1])
                moved = (moved[0] + on[0] - under[0], moved[1] + on[1] - under[1])
            far = longest(pdf.pages[at[run[-1]]])
            assert abs(moved[along]) > 1000
            assert (far[0] + moved[0], far[1] + moved[1]) == approx(begun, abs=0.2)


def run_from(at, start, step):
    """Pages that follow one another to the right or down."""
    run = [start]
    while (after := (run[-1][0] + step[0], run[-1][1] + step[1])) in at:
        run.append(after)
    return run


@pytest.mark.parametrize("paper", list(Paper))
def test_every_paper_has_its_size_its_test_square_and_the_pages_it_says(paper):
    printing = Printing(paper)
    with printed(SKIRT, printing) as pdf:
        squares = [r for r in pdf.pages[0].rects if abs(r["width"] * POINT - 100) < 0.05]
        assert any(abs(r["height"] * POINT - 100) < 0.05 for r in squares)
        for page in pdf.pages[1:]:
            width, height = float(page.width) * POINT, float(page.height) * POINT
            assert width == approx(paper.size[0], abs=0.01)
            assert height == approx(paper.size[1], abs=0.01) if paper is not Paper.ROLL else height < 5000
        count = len(pdf.pages) - 1
        text = pdf.pages[0].extract_text()
        assert f"{count} page{'s' if count > 1 else ''} after this one" in text


@pytest.mark.parametrize("paper", [Paper.A0, Paper.ROLL])
def test_on_large_paper_no_piece_is_parted_and_none_lies_over_another(paper):
    drawn, tiles, _ = sheets(SKIRT, Printing(paper))
    width, height = (side - 2 * MARGIN for side in paper.size)
    boxes = [item.piece.cut_line.placed(item.placement).box for item in drawn]
    for left, bottom, right, top in boxes:
        assert any(
            t.left <= left and right <= t.left + width and t.top - height <= bottom and top <= t.top for t in tiles
        )
    for k, (left, bottom, right, top) in enumerate(boxes):
        for other in boxes[:k]:
            assert right <= other[0] or left >= other[2] or top <= other[1] or bottom >= other[3]


def test_a_roll_ends_where_the_pattern_does():
    """The mermaid's hem ruffle is 3434 mm by 223 on the fold, and lies along the roll."""
    with printed(MERMAID, Printing(Paper.ROLL)) as pdf:
        assert len(pdf.pages) == 2
        assert 3434 < float(pdf.pages[1].height) * POINT < 3434 + 80
        assert "cm of a 36 in roll" in pdf.pages[0].extract_text()


@pytest.mark.parametrize(("scale", "factor"), [(Scale.HALF, 0.5), (Scale.QUARTER, 0.25)])
def test_a_trial_is_so_much_smaller_and_says_that_it_is_not_to_be_cut(scale, factor):
    full, small = (sheets(SKIRT, Printing(Paper.A0, one)) for one in (Scale.FULL, scale))
    for item, less in zip(sorted(full[0], key=by_name), sorted(small[0], key=by_name), strict=True):
        whole = item.piece.cut_line.placed(item.placement).length
        assert less.piece.cut_line.placed(less.placement).length == approx(whole * factor)
    with printed(SKIRT, Printing(Paper.A4, scale)) as pdf:
        text = pdf.pages[0].extract_text()
        assert f"For a trial at {scale.value} of true size: not to be cut from cloth." in text
        assert "This square measures 100 mm." in text


def by_name(item):
    return item.piece.name


def test_lines_and_words_are_left_out_where_they_are_not_asked():
    both = sheets(SKIRT, Printing())[0]
    for lines, gone in ((Lines.CUT, "SEAM"), (Lines.SEAM, "CUT")):
        some = sheets(SKIRT, Printing(lines=lines))[0]
        assert {stroke.ink.name for item in some for stroke in item.strokes} == {
            stroke.ink.name for item in both for stroke in item.strokes
        } - {gone}
    assert all(not item.words for item in sheets(SKIRT, Printing(words=False))[0])
    assert all(item.words for item in both)


def test_only_the_pieces_that_are_asked_are_printed():
    names = [piece.name for piece in make_up(MERMAID).pieces]
    with printed(MERMAID, Printing(pieces=frozenset(names[:1]))) as pdf:
        text = pdf.pages[0].extract_text()
        assert f"{names[0]}: cut" in text
        assert not any(f"{name}: cut" in text for name in names[1:])


@pytest.mark.parametrize("name", sorted(path.name for path in Path("examples").glob("*.recipe.json")))
def test_a_piece_on_the_fold_opened_out_is_twice_itself_and_its_own_mirror_image(name):
    for piece in make_up(read_recipe(json.loads(Path("examples", name).read_text()))).pieces:
        whole = opened_out(piece)
        if not piece.on_fold:
            assert whole is piece
            continue
        assert not whole.on_fold
        assert whole.seam_line.signed_area == approx(2 * piece.seam_line.signed_area, rel=1e-6)
        assert whole.cut_line.signed_area == approx(2 * piece.cut_line.signed_area, rel=2e-3)
        assert len(whole.darts) == 2 * len(piece.darts)
        mine = sorted(edge.drawn_length for edge in piece.edges if not (edge.role.is_centre and edge.allowance == 0))
        assert sorted(edge.drawn_length for edge in whole.edges) == approx(sorted([*mine, *mine]))
        for notch in piece.notches:
            if notch.edge + " other" in {edge.name for edge in whole.edges}:
                other = next(
                    n for n in whole.notches if n.edge == notch.edge + " other" and n.landmark == notch.landmark
                )
                assert other.at <= whole.edge(other.edge).drawn_length + 1e-6


def test_a_sheet_of_ones_own_is_typed_in_any_unit():
    assert sheet_size("70 x 100 cm", None) == approx((700, 1000))
    assert sheet_size("27 1/2 x 39 in", Unit.CM) == approx((698.5, 990.6))
    assert sheet_size("700mm × 1 m", Unit.CM) == approx((700, 1000))
    assert sheet_size("70x100", Unit.CM) == approx((700, 1000))
    assert sheet_size("", None) is None


@pytest.mark.parametrize("said", ["70", "a x b", "5 x 100 cm", "70 x 100 m", "1 x 2 x 3 m", "x"])
def test_what_is_no_sheet_is_refused_in_a_sentence(said):
    with pytest.raises(HTTPException) as refused:
        sheet_size(said, Unit.CM)
    assert refused.value.status_code == 422
    assert len(str(refused.value.detail)) > 20


def two_versions(**changes):
    recipe = read_recipe(json.loads(Path("examples", "drafted-quarters.recipe.json").read_text()))
    longer = recipe.model_copy(update={"lower": recipe.lower.model_copy(update={"length": recipe.lower.length + 100})})
    older = Order(recipe, make_up(recipe), Printing(**changes), 2)
    return older, Order(longer, make_up(longer), Printing(**changes), 3, beside=older)


def test_two_versions_are_printed_side_by_side_each_saying_which_it_is():
    older, newer = two_versions()
    alone, width, _ = newer.sheet
    both, wide, high = newer.printed
    assert (len(both), wide) == (2 * len(alone), approx(width + older.sheet[1]))
    assert {item.version for item in both} == {2, 3}
    outlines = [polygon(item.piece.cut_line.placed(item.placement)) for item in both]
    assert all(one.intersection(other).area < 1 for one, other in itertools.combinations(outlines, 2))
    assert all(bottom > -1 and top < high + 1 for _, bottom, _, top in (one.bounds for one in outlines))
    with pdfplumber.open(io.BytesIO(FILE_WRITERS["pattern-large.pdf"](newer))) as pdf:
        text = pdf.pages[0].extract_text()
    assert text.count("version 2") == text.count("version 3") == len(alone)


def test_two_versions_of_a_chosen_piece_go_on_the_makers_pages():
    _, newer = two_versions(pieces=frozenset({"skirt front"}))
    with pdfplumber.open(io.BytesIO(FILE_WRITERS["pattern.pdf"](newer))) as pdf:
        first = pdf.pages[0].extract_text()
    assert "skirt front: cut 1 on the fold, cloth, version 3" in first
    assert "skirt front: cut 1 on the fold, cloth, version 2" in first
    assert "bodice" not in first
    drawn, _ = newer.on_roll
    assert sorted(item.version for item in drawn) == [2, 3]
    tall = {item.version: item.piece.cut_line.box[3] - item.piece.cut_line.box[1] for item in drawn}
    assert tall[3] - tall[2] == approx(100, abs=0.5)
