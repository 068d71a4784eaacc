"""Bodices, each in a module of its own. This line is the registry: a new kind is added here."""

from gentle_hem.core.block.measured import MeasuredBodice
from gentle_hem.core.block.proportional import ProportionalBodice
from gentle_hem.core.block.quarters import QuartersBodice
from gentle_hem.core.block.two_lengths import TwoLengthsBodice

BODICES = (MeasuredBodice, QuartersBodice, TwoLengthsBodice, ProportionalBodice)
