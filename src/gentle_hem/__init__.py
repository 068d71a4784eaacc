"""Gentle Hem: from a bodice that fits to a dress that meets at the waist."""
