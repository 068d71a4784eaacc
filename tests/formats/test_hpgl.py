"""Plots: read back by a reader of the test's own, and drawn by the plotter that ships, through all that can happen."""

import json
import re
from pathlib import Path

import pytest
from pytest import approx
from shapely import LineString, Polygon, box, unary_union

from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe
from gentle_hem.demo.studio import recipe_of, works
from gentle_hem.devices.plotter import Plot, SimulatedPlotter
from gentle_hem.formats.files import FILE_WRITERS, Order
from gentle_hem.formats.hpgl import blocks

RECIPES = ["half-circle-inches", "mermaid-gown", "pocketed-shirt-dress", "two-cloth-knot"]


def order_of(name):
    recipe = read_recipe(json.loads(Path("examples", f"{name}.recipe.json").read_text()))
    return Order(recipe, make_up(recipe))


def read(plot):
    """Every line drawn, by its pen (mm): a reader that knows no more than the commands' letters."""
    pen, here, lines = 0, (0.0, 0.0), []
    plot = re.sub("LB[^\x03]*\x03;?", "", plot)
    for name, rest in re.findall(r"([A-Z]{2})([^;]*);", plot):
        numbers = [int(n) * 0.025 for n in rest.split(",") if name in ("PU", "PD") and n]
        places = list(zip(numbers[::2], numbers[1::2], strict=True))
        if name == "SP":
            pen = int(rest)
        elif name == "PU":
            here = places[-1]
        elif name == "PD":
            lines.append((pen, [here, *places]))
            here = places[-1]
    return lines


@pytest.mark.parametrize("name", RECIPES)
def test_a_plot_read_back_has_every_outline_where_it_lies_and_as_long_as_it_is(name):
    order = order_of(name)
    drawn, strips = order.on_roll
    assert len(strips) == 1
    height = strips[0].top
    plot = FILE_WRITERS["pattern.plt"](order).decode("ascii")
    assert plot.startswith("IN;")
    lines = read(plot)
    for item in drawn:
        for stroke in item.strokes:
            if stroke.ink.name not in ("CUT", "SEAM"):
                continue
            path = stroke.path.placed(item.placement)
            pen = 1 if stroke.ink.name == "CUT" else 2
            start = (path.start.x, height - path.start.y)
            mine = [line for p, line in lines if p == pen and line[0] == approx(start, abs=0.02)]
            assert any(LineString(line).length == approx(path.length, abs=0.12) for line in mine), item.piece.name
            far = (path.point_at(path.length / 3).x, height - path.point_at(path.length / 3).y)
            assert min(LineString(line).distance(LineString([far, far])) for line in mine) < 0.05
    assert min(min(y for _, y in line) for _, line in lines) >= 0
    assert min(min(x for x, _ in line) for _, line in lines) >= 0
    assert max(max(x for x, _ in line) for _, line in lines) <= 914.4


def test_no_piece_is_plotted_over_another():
    order = order_of("mermaid-gown")
    drawn, _ = order.on_roll
    shapes = [Polygon([tuple(p) for p in d.piece.cut_line.placed(d.placement).flatten(1)]) for d in drawn]
    assert unary_union(shapes).area == approx(sum(shape.area for shape in shapes), rel=1e-6)


def plot_of(name):
    order = order_of(name)
    drawn, strips = order.on_roll
    return Plot("Dress", blocks(drawn, strips)), drawn, strips


def whole_on_one_sheet(plotter, drawn):
    """For every piece, whether its cut line was drawn in full on one sheet of paper."""
    found = {}
    for item in drawn:
        wanted = sum(s.path.placed(item.placement).length for s in item.strokes if s.ink.name == "CUT")
        found[item.piece.name] = any(
            any(abs(LineString(line).length - wanted) < 0.2 for pen, line in sheet.lines if pen == 1 and len(line) > 1)
            for sheet in plotter.sheets
        )
    return found


def test_a_plot_goes_through_the_end_of_the_paper_and_every_piece_is_whole_on_one_sheet():
    plot, drawn, _ = plot_of("half-circle-inches")
    plotter = SimulatedPlotter(paper=900)
    plot.go_on(plotter)
    stopped = plot.done
    assert stopped < len(plot.blocks)
    assert f"The paper ended at the {plot.blocks[stopped].name}" in plot.trouble
    assert max(y for _, line in plotter.sheets[0].lines for _, y in line) <= 900.05
    plotter.load(5000)
    plot.on_new_paper()
    plot.go_on(plotter)
    assert plot.is_done
    assert plot.trouble == ""
    assert all(whole_on_one_sheet(plotter, drawn).values())
    lowest = min(y for _, line in plotter.sheets[1].lines for _, y in line)
    assert lowest == approx(10, abs=0.1)


def test_a_lost_line_stops_at_a_piece_that_is_drawn_again_whole():
    plot, drawn, _ = plot_of("half-circle-inches")
    plotter = SimulatedPlotter(paper=9000)
    plotter.cut_after = 30
    plot.go_on(plotter)
    assert not plot.is_done
    assert "line to the plotter was lost" in plot.trouble
    before = plot.done
    plot.go_on(plotter)  # still lost
    assert plot.done == before
    plotter.cut_after = None
    plot.go_on(plotter)
    assert plot.is_done
    assert all(whole_on_one_sheet(plotter, drawn).values())


def test_paper_shorter_than_a_piece_never_counts_it_as_drawn():
    plot, _, _ = plot_of("half-circle-inches")
    plotter = SimulatedPlotter(paper=300)
    for _ in range(3):
        plot.go_on(plotter)
        plotter.load(300)
        plot.on_new_paper()
    assert plot.done < len(plot.blocks)
    assert plot.trouble


def test_what_is_wider_than_the_roll_is_plotted_in_strips_that_hold_all_of_it():
    """The ball gown's half is 108 cm wide: every bit of every cut line is on some strip, and nothing beyond it."""
    recipe = next(recipe_of(player, work) for player, work in works() if work.title == "Ball gown")
    order = Order(recipe, make_up(recipe))
    drawn, strips = order.on_roll
    assert len(strips) > 1
    lines = read(FILE_WRITERS["pattern.plt"](order).decode("ascii"))
    assert max(x for _, line in lines for x, _ in line) <= 914.4
    assert min(x for _, line in lines for x, _ in line) >= 0
    plotted = sum(LineString(line).length for pen, line in lines if pen == 1)
    field = [box(s.left, s.top - s.height, s.left + s.width, s.top) for s in strips]
    wanted = 0.0
    for item in drawn:
        for stroke in item.strokes:
            if stroke.ink.name == "CUT":
                line = LineString([tuple(p) for p in stroke.path.placed(item.placement).flatten(0.02)])
                assert unary_union(field).buffer(0.01).covers(line)
                wanted += sum(line.intersection(one).length for one in field)
    assert plotted == approx(wanted, rel=1e-3)
    plot = Plot("Dress", blocks(drawn, strips))
    plotter = SimulatedPlotter(paper=2000)
    while not plot.is_done:
        plot.go_on(plotter)
        plotter.load(6000)
        plot.on_new_paper()
    assert max(x for sheet in plotter.sheets for _, line in sheet.lines for x, _ in line) <= plotter.width
