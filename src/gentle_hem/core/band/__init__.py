"""What lies between the bodice and the lower part, each kind a class. This line is the registry."""

from gentle_hem.core.band.band import HipYoke, NoBand, Waistband

BANDS = (NoBand, Waistband, HipYoke)
