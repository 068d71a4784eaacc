"""What a maker does to the pieces, each kind a class. This line is the registry."""

from gentle_hem.core.steps.centre_seam import CentreSeam
from gentle_hem.core.steps.contour import UnderBust, Wedge, ZipContour
from gentle_hem.core.steps.corner import LetOutCorner
from gentle_hem.core.steps.cut_off import CutOff
from gentle_hem.core.steps.dart import MoveDart, ShapeDart
from gentle_hem.core.steps.end import LowerEnd
from gentle_hem.core.steps.ends import EndsAt, Yoke
from gentle_hem.core.steps.front import ButtonStand, Keyhole, Twist
from gentle_hem.core.steps.front_dart import FrontDart, WaistDart
from gentle_hem.core.steps.full_bust import FullBust
from gentle_hem.core.steps.hollow import Hollow
from gentle_hem.core.steps.insert import Insert
from gentle_hem.core.steps.join import JoinPieces
from gentle_hem.core.steps.knot import Knot
from gentle_hem.core.steps.laced import LacedOpening
from gentle_hem.core.steps.let_out import LetOut
from gentle_hem.core.steps.level_hem import LevelHem
from gentle_hem.core.steps.line import StyleLine
from gentle_hem.core.steps.neckline import NeckStep
from gentle_hem.core.steps.princess import PrincessSeam
from gentle_hem.core.steps.spread import Pinch, Spread
from gentle_hem.core.steps.top import Facing, Straps, TopStep
from gentle_hem.core.steps.waist_level import WaistLevel

STEPS = (
    NeckStep, Facing, FrontDart, WaistDart, PrincessSeam, Yoke, EndsAt, TopStep, Straps, ButtonStand, Keyhole, Twist,
    ZipContour, Wedge, UnderBust, Hollow, LowerEnd, LetOutCorner, Pinch, Spread, MoveDart, ShapeDart, StyleLine, CutOff,
    Insert, CentreSeam, LacedOpening, Knot, LetOut, FullBust,
    JoinPieces, WaistLevel, LevelHem,
)  # fmt: skip
