"""Cloth first: what a given piece of cloth can become (trade 7.5, 12)."""
