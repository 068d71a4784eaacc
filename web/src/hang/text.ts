/** Every word the interface says of a dress that hangs. */
export const hangText = {
  hang: {
    title: "Hung before it is cut",
    open: "Hang it before it is cut",
    how: "The pieces of this recipe, sewn together, on a form of her measures, in this cloth. Cloth classes are from memory: it shows how one dress falls beside another, and a fitting has the last word.",
    again: "Hang it again",
    stop: "Stop",
    changed: "The recipe has changed since this was hung.",
    state: {
      falling: "It falls …",
      rest: "It hangs at rest.",
      refused: "",
      failed: "",
      stopped: "Stopped; hang it again to read it.",
    },
    picture: "The dress on her form",
    turned: "Turned",
    degrees: (turn: number) => `${turn}°`,
    views: [
      ["front", 0],
      ["left side", 90],
      ["back", 180],
      ["right side", 270],
    ] as [string, number][],
    /** The sides it is pictured from for paper, as they are called. */
    sides: { front: "front", side: "left side", back: "back" },
    look: "Shown",
    looks: { shaded: "as cloth", ink: "in ink", tight: "where it is tight" },
    when: "When",
    whens: { now: "as it hangs", later: "after two days" },
    noPicture:
      "This browser cannot draw it (it has no WebGL); what is read from it stands beside this, in words and numbers.",
    asItHangs: "as it hung",
    words: "What it says",
    ribbons: { both: "The hem all round", left: "The hem on her left", right: "The hem on her right" },
    ribbonHow:
      "From front to back, smoothed over its folds: as asked, as it hangs, and after two days on the bias.",
    lines: { asked: "as asked", now: "as it hangs", later: "after two days" },
    heads: ["", "asked", "now", "after two days", "along the cloth"],
    level: "Take the levelled hem into the pattern",
    pinch: (edge: string) => `Pinch the wedge out of the front ${edge}`,
    beside: "Beside it: other fullness",
    besideHow: (hers: string, others: string[]) =>
      `As it is: ${hers}. The same dress in the same cloth, hung beside it: ${others.join(", ")}.`,
    besideAsk: "Hang them beside it",
    hers: (said: string) => `${said} (this one)`,
    pictures: "Front, side and back",
    print: "Print the dress with these",
    seen: (side: string) => `The dress on her form, ${side}`,
    tightest: "more than 2 % along its threads",
  },
};
