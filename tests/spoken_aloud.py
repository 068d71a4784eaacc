"""Everything that is said of the examples, and what they are cut to, as JSON: run in a program of its own, which may
speak another language.
"""

import hashlib
import json
import sys
from pathlib import Path

from gentle_hem.core.dressed import drawn_dress
from gentle_hem.core.make_up import make_up
from gentle_hem.core.making.plan import plan_of
from gentle_hem.core.recipe import read_recipe, spoken_parts
from gentle_hem.core.tongue import named
from gentle_hem.core.units import tape


def said_of(recipe, garment):
    """Kind by kind, every text that is spoken."""
    unit = tape(recipe.unit)
    for finding in garment.findings:
        yield "finding", finding.text(unit)
        for remedy in finding.remedies:
            yield "remedy", f"{remedy.text(unit)} {remedy.cost(unit)}"
    for working in garment.workings:
        for text in (working.label, working.formula, working.rule, working.rounding, working.topic, working.line(unit)):
            yield "working", text
    for part in spoken_parts(recipe, unit):
        yield "title", part.title
        for token in (token for line in part.lines for token in line):
            yield "sentence", token if isinstance(token, str) else token.text
            if not isinstance(token, str):
                yield "word", f"{named(token.word.label)} {token.word.help}"
                yield from (("choice", named(text)) for _, text in token.word.choices)
    for step in garment.draft:
        yield "draft", step.text(unit)
    for one in plan_of(garment, recipe).operations:
        yield "operation", named(one.title)
        yield from (("operation", said.text(unit)) for said in one.says)


def cut(recipe, garment):
    """What a garment is cut to, what its pieces, edges and seams are called, and how it is drawn on her."""
    told = [
        (piece.name, piece.cut, [round(x, 6) for x in piece.cut_line.box], [edge.name for edge in piece.edges])
        for piece in garment.pieces
    ]
    walked = [(seam.name, round(seam.length_a, 6), round(seam.length_b, 6)) for seam in garment.seams]
    codes = [finding.code for finding in garment.findings]
    drawn = [(level.name, round(level.girth, 6)) for level in drawn_dress(recipe, garment).levels]
    return hashlib.sha256(repr((told, walked, codes, drawn)).encode()).hexdigest()


def main():
    everything = {}
    for path in sorted(Path("examples").glob("*.recipe.json")):
        recipe = read_recipe(json.loads(path.read_text()))
        garment = make_up(recipe)
        everything[path.name] = {"said": list(dict.fromkeys(said_of(recipe, garment))), "cut": cut(recipe, garment)}
    json.dump(everything, sys.stdout)


if __name__ == "__main__":
    main()
