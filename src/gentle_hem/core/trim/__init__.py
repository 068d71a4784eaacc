"""Added fullness and what is added at the top, each kind a class. This line is the registry."""

from gentle_hem.core.trim.binding import BiasBinding
from gentle_hem.core.trim.collar import RollCollar, StandCollar
from gentle_hem.core.trim.faced_slit import FacedSlit
from gentle_hem.core.trim.flounce import RingFlounce, SpiralFlounce
from gentle_hem.core.trim.godet import Godets
from gentle_hem.core.trim.inserted_peplum import InsertedPeplum
from gentle_hem.core.trim.neck import Belt, Cape, ElasticCasing, NeckBand
from gentle_hem.core.trim.opening import Slit, Vent
from gentle_hem.core.trim.pocket import PatchPocket, SeamPocket
from gentle_hem.core.trim.ruffle import HemRuffle, SideRuffle
from gentle_hem.core.trim.seam_rings import SeamRings
from gentle_hem.core.trim.side_rings import SideRings
from gentle_hem.core.trim.sleeve import Sleeve
from gentle_hem.core.trim.sleeve_rings import SleeveRings
from gentle_hem.core.trim.tab import Tab
from gentle_hem.core.trim.two_cloths import TwoCloths

TRIMS = (
    HemRuffle, RingFlounce, SpiralFlounce, SideRuffle, SideRings, Godets, Slit, Vent, FacedSlit, Sleeve, StandCollar,
    RollCollar, NeckBand, Cape, ElasticCasing, Belt, BiasBinding, PatchPocket, SeamPocket, InsertedPeplum,
    SleeveRings, SeamRings, Tab, TwoCloths,
)  # fmt: skip
