"""What can be done to any piece: turned over, cut in two, pivoted, spread, carried on, drawn again at its waist."""
