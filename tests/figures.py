"""The figures the drafts are tried on: every size of the table, and odd ones."""

from gentle_hem.core.estimates import SIZE_TABLE

SCHOOLS = ("quarters", "quarters_cm", "two_lengths", "proportional", "body_length")

FIGURES = {
    f"size {bust // 10}": {"bust_girth": bust, "waist_girth": waist, "hip_girth": hip}
    for bust, waist, hip in SIZE_TABLE
}
FIGURES |= {
    "very full bust": {"bust_girth": 1220, "waist_girth": 880, "front_waist_length": 490, "back_waist_length": 425,
                       "shoulder_to_bust_point": 310, "shoulder_width": 390, "bust_span": 230},
    "petite": {"bust_girth": 780, "waist_girth": 620, "front_waist_length": 385, "back_waist_length": 365,
               "shoulder_to_bust_point": 225, "shoulder_width": 340},
    "tall": {"bust_girth": 940, "waist_girth": 740, "front_waist_length": 475, "back_waist_length": 445},
    "nothing but a bust": {"bust_girth": 900},
    "nothing at all": {},
    "square": {"bust_girth": 1000, "waist_girth": 1000},
}  # fmt: skip
