/** Every word the interface says of the making plan. */
export const makingText = {
  making: {
    title: "Making",
    folded: "The order of work, worked down and timed.",
    open: "Open the plan",
    schools: [
      ["sides_first", "sides first, the waist in the round"],
      ["waist_first", "waist first, the sides last"],
    ],
    school: "How it is sewn together",
    flatNot: "The side seams do not close this waist, so they come first all the same.",
    stops: (count: number) =>
      count === 1
        ? "One thing must be settled before this is cut."
        : `${count} things must be settled before this is cut.`,
    sum: (count: number, time: string) => `${count} operations, about ${time} at your own pace.`,
    left: (done: number, left: string) => `${done} done, about ${left} left.`,
    allDone: "Everything is done.",
    print: "Print the bench sheet",
    list: "Operations in order",
    next: "next",
    doneMark: "done",
    waits: (what: string) => `waits for ${what}`,
    after: "First:",
    because: (title: string, why: string) => `${title}: ${why}`,
    rests: (hours: string) => `then it rests ${hours}`,
    done: "Done",
    notDone: "Not done after all",
    start: "Start the timer",
    stop: "Stop the timer",
    running: "The timer runs",
    spent: "Minutes it took",
    noMinutes: "A number of minutes is wanted, such as 25 or 12.5.",
    waitFor: "Waits for",
    nothing: "nothing",
    note: "Note",
    keepNote: "Keep the note",
    wearer: "For the wearer",
    hints: { "needle and thread": "Needle and thread", iron: "Iron", marking: "Marking", cutting: "Cutting" },
    practice: "Times and hints are common practice, from memory, until you have timed your own.",
    drawing: "What is sewn",
  },
};
