"""What is kept: people, their figures, commissions and their recipes, in one SQLite file."""

from gentle_hem.store.store import Store
from gentle_hem.store.trouble import StoreTrouble

__all__ = ["Store", "StoreTrouble"]
