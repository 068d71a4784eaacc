"""Style lines: what is done to a block that fits, before it becomes a dress."""
