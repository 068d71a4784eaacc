"""The invented person the simulated tape is held round (mm). Her measures agree with each other."""

from __future__ import annotations

from gentle_hem.core.figure import MeasureKey

TAPE_PERSON: dict[MeasureKey, float] = {
    "neck_girth": 362, "upper_bust_girth": 905, "bust_girth": 948, "under_bust_girth": 812, "waist_girth": 742,
    "high_hip_girth": 905, "hip_girth": 1012, "head_girth": 565, "shoulder_width": 392,
    "cross_shoulder_front": 386, "cross_shoulder_back": 398, "shoulder_length": 124,
    "across_front": 338, "across_back": 356, "bust_span": 188, "off_shoulder_girth": 1045,
    "shoulder_to_upper_bust": 205, "shoulder_to_bust_point": 268, "shoulder_to_under_bust": 342,
    "front_waist_length": 444, "back_waist_length": 414, "nape_to_waist": 402, "shoulder_to_hip": 646,
    "full_length": 1120, "waist_to_hip": 204, "waist_to_knee": 592, "waist_to_floor": 1044, "height": 1684,
    "heel_height": 45, "armhole_girth": 418, "upper_arm_girth": 288, "elbow_girth": 262, "wrist_girth": 160,
    "arm_length": 592, "crotch_depth": 236, "crotch_length": 684, "trunk_girth": 1530, "inside_leg": 782,
    "thigh_girth": 604, "knee_girth": 378, "calf_girth": 370, "ankle_girth": 226,
}  # fmt: skip
