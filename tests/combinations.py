"""Fifteen garments that bring together what is seldom on one dress; each a recipe, made whole in the tests."""

from conftest import FIGURE

MEASURES = {
    **FIGURE, "head_girth": 560, "off_shoulder_girth": 1060, "upper_arm_girth": 300, "wrist_girth": 165, "height": 1680,
    "waist_to_floor": 1040, "inside_leg": 760, "trunk_girth": 1530, "crotch_depth": 240, "thigh_girth": 600,
    "knee_girth": 370, "ankle_girth": 230,
}  # fmt: skip

SIDE, BACK, FRONT, NONE = (
    {"place": place, "below_waist": 180} for place in ("side", "centre_back", "centre_front", "none")
)

ONE_SHOULDER_JUMPSUIT = {
    "bodice": {"kind": "two_lengths"}, "lower": {"kind": "trousers", "crotch_ease": 45}, "opening": BACK,
    "style": {"top": "one_shoulder", "bare_below": 30, "wider": 20, "bust_dart": "waist"},
    "contour": {"centre": 12.7, "zip_taken": 19.05},
}  # fmt: skip

PEPLUM_BLOUSE = {
    "bodice": {"kind": "quarters"}, "lower": {"kind": "gown", "length": 150}, "finish": {"lining": "whole"},
    "opening": {"place": "centre_back", "below_waist": 100},
    "steps": [
        {"kind": "princess", "on": "both", "start": "armhole", "share": 0.5},
        {"kind": "centre_seam", "on": "front"},
    ],
    "trims": [
        {"kind": "sleeve", "style": "puff", "length": 240, "elastic": 8},
        {"kind": "inserted_peplum", "depth": 200},
    ],
}  # fmt: skip

EMPIRE = {
    "bodice": {"kind": "quarters"}, "lower": {"kind": "a_line", "length": 560}, "opening": FRONT,
    "panels": {"ends": "midriff"}, "contour": {"under_bust": "close"},
    "steps": [
        {"kind": "corner", "corner": "shoulder tip", "on": "both", "out": 15, "up": 8},
        {"kind": "corner", "corner": "underarm", "on": "both", "out": -10, "up": -25},
        {"kind": "shape_dart", "on": "front", "left": "fold", "shorter": 0},
        {"kind": "line", "part": "lower", "on": "both", "start": "waist", "end": "hem"},
    ],
    "trims": [
        {"kind": "sleeve", "length": 560},
        {"kind": "pocket", "part": "lower", "width": 90, "height": 100, "flap": 45, "down": 200, "beside": 8},
    ],
}  # fmt: skip

OFF_SHOULDER = {
    "bodice": {"kind": "quarters", "dart_share": 0.35}, "lower": {"kind": "circle", "sweep": 180, "length": 650},
    "opening": BACK, "style": {"top": "off_shoulder", "top_taken": 120},
    "steps": [
        {"kind": "pinch", "on": "front", "edge": "neckline", "hinge": "side", "amount": 8, "share": 0.5},
        {"kind": "princess", "on": "front", "start": "neckline", "share": 0.45},
        {"kind": "lower_end", "on": "back", "edge": "neckline", "amount": 25},
    ],
    "trims": [{"kind": "cape", "spans": "faced"}],
}  # fmt: skip

CROSSED_STRAPS = {
    "bodice": {"kind": "quarters"}, "lower": {"kind": "gown", "length": 900}, "opening": BACK,
    "style": {"top": "strapless", "straps": "criss_cross", "strap_ends": "shaped", "strap_width": 35},
    "steps": [{"kind": "lower_end", "on": "front", "edge": "neckline", "amount": 30}],
    "trims": [
        {"kind": "side_rings", "rings": 6, "width": 100, "short": 76}, {"kind": "slit", "height": 450, "place": "back"}
    ],
}  # fmt: skip

KNOTTED = {
    "bodice": {"kind": "quarters"}, "lower": {"kind": "a_line", "length": 650}, "opening": SIDE,
    "style": {"front_neck": "v", "front_depth": 190}, "finish": {"lining": "whole"},
    "steps": [{"kind": "knot", "cuts": 3, "amount": 76.2}],
}  # fmt: skip

HALTER = {
    "bodice": {"kind": "two_lengths"}, "lower": {"kind": "straight", "length": 680}, "opening": BACK,
    "style": {"front_neck": "as_drafted"},
    "steps": [
        {"kind": "move_dart", "on": "front", "edge": "side", "to": "waist", "share": 0.75},
        {"kind": "cut_off", "on": "both", "start": "shoulder", "start_share": 0.35, "end": "side", "end_share": 0.08,
         "ends": "square"},
    ],
    "trims": [{"kind": "stand_collar", "height": 38, "rise": 25, "slant": 6}, {"kind": "vent"}],
}  # fmt: skip

LACED = {
    "bodice": {"kind": "quarters"}, "lower": {"kind": "circle", "length": 600}, "opening": BACK,
    "panels": {"ends": "basque", "depth": 100},
    "steps": [
        {"kind": "princess", "on": "both", "start": "shoulder", "share": 0.4},
        {"kind": "line", "on": "back", "start": "princess", "start_share": 0.25, "end": "armhole", "end_share": 0.5,
         "bow": 8},
        {"kind": "laced", "width": 76, "pitch": 15},
    ],
}  # fmt: skip

BUTTON_THROUGH = {
    "bodice": {"kind": "quarters"}, "lower": {"kind": "a_line", "length": 720}, "opening": NONE,
    "style": {"facing": "faced", "front_neck": "v", "front_depth": 140},
    "panels": {"stand": 25, "buttons": 5, "down": "skirt", "button": 18},
    "trims": [{"kind": "pocket", "down": 150, "beside": 60, "flap": 50}],
}  # fmt: skip

PANEL_GOWN = {
    "bodice": {"kind": "quarters", "back_dart": 32}, "lower": {"kind": "gown", "length": 1000}, "opening": BACK,
    "steps": [{"kind": "shape_dart", "on": "back", "narrower": 8, "shorter": 0}, {"kind": "princess", "on": "front"}],
    "trims": [
        {"kind": "roll_collar", "height": 45}, {"kind": "sleeve", "length": 580, "wrist": 260},
        {"kind": "faced_slit", "place": "sleeve", "height": 90, "facing": 25, "buttons": 3},
        {"kind": "godets", "count": 1, "height": 400, "angle": 90},
    ],
}  # fmt: skip

PINAFORE = {
    "bodice": {"kind": "quarters"}, "band": {"kind": "waistband", "width": 40},
    "lower": {"kind": "straight", "length": 620}, "opening": SIDE,
    "style": {"front_neck": "v", "front_depth": 240, "back_neck": "v", "back_depth": 180, "wider": 25},
    "trims": [{"kind": "slit", "place": "side", "height": 260}, {"kind": "bias_binding", "edge": "armholes"}],
}  # fmt: skip

NET_YOKE = {
    "bodice": {"kind": "quarters"}, "lower": {"kind": "gown", "length": 1000}, "opening": BACK,
    "steps": [
        {"kind": "line", "on": "both", "start": "armhole", "start_share": 0.45, "end": "centre", "end_share": 0.15,
         "bow": 20, "cloth": "contrast"},
    ],
    "trims": [{"kind": "hem_ruffle", "place": "cut_off", "height": 300, "fullness": 3, "sewn": "on_top"}],
    "cloths": {"contrast": {"across": 15, "weight": "net"}},
}  # fmt: skip

TENT = {
    "bodice": {"kind": "quarters"}, "opening": NONE,
    "lower": {"kind": "gown", "length": 600, "sides": "underarm", "hem": 20, "hem_in": -120},
    "style": {"top": "halter", "strap_width": 40},
    "trims": [
        {"kind": "elastic", "place": "back_top", "width": 10, "share": 0.85},
        {"kind": "neck_band", "width": 20, "ties": 350},
    ],
}  # fmt: skip

TUNIC = {
    "bodice": {"kind": "quarters", "waist_ease": 280}, "lower": {"kind": "gown", "length": 640}, "opening": NONE,
    "trims": [
        {"kind": "sleeve", "length": 570, "cap_height": 110},
        {"kind": "faced_slit", "place": "back_neck", "height": 170, "button": 11},
        {"kind": "slit", "place": "sides", "height": 560},
    ],
}  # fmt: skip

TWO_TONE = {
    "bodice": {"kind": "quarters"}, "lower": {"kind": "straight", "length": 640}, "opening": SIDE,
    "style": {"back_neck": "scoop", "back_depth": 220, "front_neck": "v", "front_depth": 170},
    "panels": {"twist": 3, "twist_spread": 70}, "finish": {"lining": "bodice"},
    "steps": [{"kind": "centre_seam", "part": "lower", "on": "front"}],
    "trims": [
        {"kind": "two_cloths", "on": "front"}, {"kind": "two_cloths", "part": "lower", "on": "front"},
        {"kind": "slit", "place": "front", "height": 300},
    ],
}  # fmt: skip

COMBINATIONS = {
    "one-shoulder jumpsuit": ONE_SHOULDER_JUMPSUIT, "peplum blouse": PEPLUM_BLOUSE, "empire": EMPIRE,
    "off-shoulder": OFF_SHOULDER, "crossed straps": CROSSED_STRAPS, "knotted": KNOTTED, "halter": HALTER,
    "laced": LACED, "button-through": BUTTON_THROUGH, "panel gown": PANEL_GOWN, "pinafore": PINAFORE,
    "net yoke": NET_YOKE, "tent": TENT, "tunic": TUNIC, "two-tone": TWO_TONE,
}  # fmt: skip
