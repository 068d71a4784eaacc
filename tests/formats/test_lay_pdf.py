"""The lay on paper, read back by pdfplumber: every number, every distance, the pieces to one scale."""

import io
import json
from pathlib import Path

import pdfplumber
import pytest
from pytest import approx

from gentle_hem.core.cloth.bought import LaidCloth, bought
from gentle_hem.core.cloth.lay import HowLaid, lay, roles_of, width_of
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe
from gentle_hem.core.units import Tape, Unit, format_length
from gentle_hem.formats.lay_pdf import to_lay_pdf


@pytest.mark.parametrize("folded", [None, 600.0])
@pytest.mark.parametrize("name", ["mermaid-gown", "two-cloth-knot", "full-circle"])
def test_every_piece_is_numbered_and_says_where_it_lies(name, folded):
    recipe = read_recipe(json.loads(Path("examples", f"{name}.recipe.json").read_text()))
    garment, tape = make_up(recipe), Tape(Unit.CM)
    cloths = []
    for role in roles_of(garment):
        cloth = recipe.cloths.cloth(role)
        laid = lay(garment, role, width_of(cloth, role), HowLaid(folded=folded))
        cloths.append(LaidCloth(laid, cloth, bought(laid.length, cloth, tape)))
    with pdfplumber.open(io.BytesIO(to_lay_pdf("Dress", cloths, tape))) as pdf:
        texts = [page.extract_text() for page in pdf.pages]
        assert len(pdf.pages) >= len(cloths)
        whole = "\n".join(texts)
        for one in cloths:
            assert one.bought.text in whole
            for placed in one.lay.placed:
                assert placed.name in whole
                assert format_length(placed.from_cut_end, tape) in whole
            for wide in one.lay.too_wide:
                assert f"NOT ON THIS CLOTH: {wide.name}" in whole
        first, laid = pdf.pages[0], cloths[0].lay
        frame = max((r for r in first.rects), key=lambda r: r["width"] * r["height"])
        assert frame["width"] / frame["height"] == approx(laid.length / laid.width, rel=0.01)
        shapes = [c for c in first.curves if c["height"] > 2] + [r for r in first.rects if r is not frame]
        assert len(shapes) >= len(laid.placed)
