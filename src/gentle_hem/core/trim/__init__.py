"""Added fullness and what is added at the top, each kind a class. This line is the registry."""

from gentle_hem.core.trim.flounce import RingFlounce, SpiralFlounce
from gentle_hem.core.trim.godet import Godets
from gentle_hem.core.trim.neck import Belt, Cape, ElasticCasing, NeckBand, StandCollar
from gentle_hem.core.trim.opening import Slit, Vent
from gentle_hem.core.trim.ruffle import HemRuffle, SideRuffle
from gentle_hem.core.trim.sleeve import Sleeve

TRIMS = (
    HemRuffle, RingFlounce, SpiralFlounce, SideRuffle, Godets, Slit, Vent, Sleeve, StandCollar, NeckBand, Cape,
    ElasticCasing, Belt,
)  # fmt: skip
