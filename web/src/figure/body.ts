/** Our own drawing of a person, front and back, and where each measure lies on it. Drawing units, not lengths. */

export const HALF_BODY =
  "M0 62 L11 64 Q11 76 16 80 L40 89 Q50 95 51 112 L54 188 L60 246 Q64 262 58 268 Q52 264 51 246 L45 190 L38 134" +
  " Q43 146 41 154 Q36 166 34 176 Q29 192 29 206 Q33 236 45 264 Q46 290 42 316 L31 372 Q36 396 30 420 L21 462" +
  " Q30 472 27 476 L10 476 L11 462 Q14 410 12 372 Q10 330 2 290 L0 288";

type Side = "front" | "back";
type Line = { side: Side; d: string };

/** Round the body at a level: the tape seen from the front. */
const round = (y: number, w: number, side: Side = "front"): Line => ({
  side,
  d: `M${-w} ${y} Q0 ${y + 9} ${w} ${y}`,
});
const line = (d: string, side: Side = "front"): Line => ({ side, d });

export const LINES: Record<string, Line> = {
  neck_girth: round(76, 15),
  upper_bust_girth: round(132, 38),
  bust_girth: round(152, 41),
  under_bust_girth: round(174, 34),
  waist_girth: round(206, 29),
  high_hip_girth: round(232, 36),
  hip_girth: round(264, 45),
  head_girth: round(26, 19),
  shoulder_width: line("M-41 90 Q0 80 41 90", "back"),
  shoulder_length: line("M16 80 L41 90"),
  across_front: line("M-36 114 L36 114"),
  cross_shoulder_front: line("M-44 96 L44 96"),
  cross_shoulder_back: line("M-44 96 L44 96", "back"),
  across_back: line("M-36 114 L36 114", "back"),
  bust_span: line("M-19 152 L19 152"),
  off_shoulder_girth: round(104, 50),
  shoulder_to_upper_bust: line("M16 80 L18 132"),
  shoulder_to_bust_point: line("M16 80 L19 152"),
  shoulder_to_under_bust: line("M16 80 Q24 150 19 174"),
  front_waist_length: line("M16 80 Q26 152 16 206"),
  back_waist_length: line("M16 80 L16 206", "back"),
  nape_to_waist: line("M0 78 L0 206", "back"),
  shoulder_to_hip: line("M16 80 Q26 152 20 264"),
  full_length: line("M16 80 Q26 152 22 400"),
  waist_to_hip: line("M29 206 Q33 236 45 264"),
  waist_to_knee: line("M29 206 Q34 236 46 264 Q46 300 34 372"),
  waist_to_floor: line("M29 206 Q34 236 48 264 Q50 320 40 476"),
  height: line("M62 6 L62 476"),
  heel_height: line("M32 462 L32 476"),
  armhole_girth: line("M40 88 Q54 110 40 134 Q28 112 40 88"),
  upper_arm_girth: line("M39 138 Q46 144 53 138"),
  elbow_girth: line("M44 190 Q50 196 55 190"),
  wrist_girth: line("M51 244 Q56 250 61 244"),
  arm_length: line("M41 90 Q54 110 56 190 L60 246"),
  crotch_depth: line("M46 206 L46 288"),
  crotch_length: line("M0 206 L0 290"),
  trunk_girth: line("M16 80 Q24 160 4 288 Q-2 294 -4 288"),
  inside_leg: line("M2 290 L11 476"),
  thigh_girth: line("M3 306 Q24 316 43 306"),
  knee_girth: line("M12 372 Q22 380 31 372"),
  calf_girth: line("M12 402 Q23 412 34 402"),
  ankle_girth: line("M11 460 Q16 466 22 460"),
};
