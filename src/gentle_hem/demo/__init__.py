"""The demo studio: Fennel & Loom, dressing the Saltmarsh Players for a summer season. All invented."""

from gentle_hem.demo.studio import fill

__all__ = ["fill"]
