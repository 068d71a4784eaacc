"""What is kept: people, their figures, commissions and their recipes, in one SQLite file."""

from gentle_hem.store.store import Store

__all__ = ["Store"]
