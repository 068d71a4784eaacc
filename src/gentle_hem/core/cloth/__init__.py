"""Cloth first: what a given piece of cloth can become (handbook 7.5, 12)."""
