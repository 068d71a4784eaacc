"""Bodices, each in a module of its own. This line is the registry: a new kind is added here."""

from gentle_hem.core.block.bib import BibBodice
from gentle_hem.core.block.body_length import BodyLengthBodice
from gentle_hem.core.block.measured import MeasuredBodice
from gentle_hem.core.block.not_yet import NoBodice
from gentle_hem.core.block.own import OwnBodice
from gentle_hem.core.block.proportional import ProportionalBodice
from gentle_hem.core.block.quarters import QuartersBodice
from gentle_hem.core.block.quarters_cm import QuartersCmBodice
from gentle_hem.core.block.two_lengths import TwoLengthsBodice

BODICES = (
    MeasuredBodice, QuartersBodice, QuartersCmBodice, TwoLengthsBodice, ProportionalBodice, BodyLengthBodice, BibBodice,
    OwnBodice, NoBodice,
)  # fmt: skip
