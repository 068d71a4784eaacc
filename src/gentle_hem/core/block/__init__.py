"""Bodices, each in a module of its own. This line is the registry: a new kind is added here."""

from gentle_hem.core.block.measured import MeasuredBodice

BODICES = (MeasuredBodice,)
