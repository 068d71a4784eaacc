"""How much is accepted from outside: one number, said everywhere the same."""

LARGEST_UPLOAD = 8_000_000
"""No recipe, table or block comes near eight megabytes (bytes)."""

LARGEST_SAID = "8 MB"

LARGEST_PHOTO = 40_000_000
"""A photograph of 48 megapixels may take so much (bytes)."""

LARGEST_PHOTO_SAID = "40 MB"

LARGEST_BACKUP = 2_000_000_000
"""Every dress of many years (bytes)."""

LARGEST_BACKUP_SAID = "2 GB"
