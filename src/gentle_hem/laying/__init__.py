"""The long search for a shorter lay, in a process of its own."""
