"""What hangs below the waist, each kind in a module of its own. This line is the registry."""

from gentle_hem.core.lower.a_line import ALineSkirt
from gentle_hem.core.lower.circle import CircleSkirt
from gentle_hem.core.lower.circle_family import DoubleCircle, GoredCircle, HandkerchiefSkirt, HighLowSkirt
from gentle_hem.core.lower.full import GatheredSkirt, PleatedSkirt, TieredSkirt
from gentle_hem.core.lower.gores import Gores
from gentle_hem.core.lower.gown import Gown
from gentle_hem.core.lower.peplum import Peplum
from gentle_hem.core.lower.straight import StraightSkirt
from gentle_hem.core.lower.trousers import Trousers

LOWER_PARTS = (
    CircleSkirt, HighLowSkirt, HandkerchiefSkirt, GoredCircle, DoubleCircle, StraightSkirt, ALineSkirt, Gores,
    GatheredSkirt, PleatedSkirt, TieredSkirt, Peplum, Trousers, Gown,
)  # fmt: skip
