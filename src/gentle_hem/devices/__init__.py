"""Outside devices, each behind the interface a real one would use, with a small stand-in that ships."""
