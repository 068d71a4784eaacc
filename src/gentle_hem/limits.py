"""How much is accepted from outside: one number, said everywhere the same."""

LARGEST_UPLOAD = 8_000_000
"""No recipe, table or block comes near eight megabytes (bytes)."""

LARGEST_SAID = "8 MB"
