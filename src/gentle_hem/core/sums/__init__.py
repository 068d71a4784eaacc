"""The sums: one calculation each, with its workings; shared by command line, API and sums bench.

This import list is the registry: a new sum is one module with one class, and one line here.
"""

from gentle_hem.core.sums.circle import CircleSum
from gentle_hem.core.sums.cloth import CircleFromClothSum, GatherFromClothSum
from gentle_hem.core.sums.dart_share import DartShareSum
from gentle_hem.core.sums.gather import GatherSum
from gentle_hem.core.sums.skirt_length import SkirtLengthSum
from gentle_hem.core.sums.sum import Sum, SumResult
from gentle_hem.core.sums.sweep_for_hem import SweepForHemSum
from gentle_hem.core.sums.trade import (
    ButtonsSum,
    FlareSum,
    GodetSum,
    HighLowSum,
    PleatsSum,
    RingFlounceSum,
    StepSum,
    TiersSum,
)

SUMS: dict[str, type[Sum]] = {
    kind.name: kind
    for kind in (
        SkirtLengthSum,
        CircleSum,
        SweepForHemSum,
        GatherSum,
        FlareSum,
        DartShareSum,
        RingFlounceSum,
        GodetSum,
        TiersSum,
        PleatsSum,
        HighLowSum,
        StepSum,
        ButtonsSum,
        CircleFromClothSum,
        GatherFromClothSum,
    )
}

__all__ = ["SUMS", "Sum", "SumResult"]
