"""Making: the order of work, worked out from what is cut and what is sewn to what (trade 13)."""
