"""Cloth that falls: what it is like, its mesh, and how it comes to rest."""
