"""What hangs below the waist, each kind in a module of its own. This line is the registry."""

from gentle_hem.core.lower.circle import CircleSkirt

LOWER_PARTS = (CircleSkirt,)
