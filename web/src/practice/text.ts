/** Every word the interface says of the practice bench. */
export const practiceText = {
  practice: {
    title: "Practice",
    intro: "Short problems on the demo studio's garments, with pencil and tape. Nothing of yours is touched.",
    kinds: {
      radius: "Radius",
      "cut radius": "Cut radius",
      "zip allowance in the arc": "Zip in the arc",
      "share of a dart": "Share of a dart",
      "gathers for a cloth": "Gathers for a cloth",
      "length from two others": "A length from two others",
      "a seam that does not meet": "A seam that does not meet",
    },
    level: (level: number, levels: number) => `level ${level} of ${levels}`,
    answer: "Your answer",
    look: "Look at it",
    next: "The next one",
    right: (answer: string) => `Right: ${answer}.`,
    wrong: (answer: string) => `Not so: it is ${answer}.`,
    slip: "What probably happened:",
    working: "How it is worked out",
    score: (right: number, count: number) => `${right} of ${count} right so far`,
    anew: "Begin anew",
  },
};
