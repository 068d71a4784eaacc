"""Garment to file, and file to recipe. Everything is true size, in millimetres."""
