/** Every word the interface says of the calendar. */
export const daysText = {
  days: {
    title: "Calendar",
    intro:
      "One pair of hands, every dress: the one that is due first goes first, the others fill what is left.",
    layOut: "Lay the days out anew",
    laying: "Laying the days out",
    earlier: "Earlier",
    later: "Later",
    now: "Today",
    ics: "As a calendar file",
    late: "Will not be done in time",
    moreLate: (count: number) => (count === 1 ? "And one more dress." : `And ${count} more dresses.`),
    conflicts: "Does not go",
    today: "Begin today",
    behind: (count: number) =>
      count === 1
        ? "One stretch of work lies behind and is not done."
        : `${count} stretches of work lie behind and are not done.`,
    nothing: "Nothing is late, and nothing lies across anything.",
    closed: "closed",
    free: "nothing to do",
    due: (title: string) => `${title} is due`,
    agreed: "agreed",
    toAgree: "to be agreed",
    agree: "Agree a time",
    another: "Another time",
    when: "Fitting at",
    see: "See what moves",
    keep: "Agree on it",
    leave: "Leave it as it is",
    nothingMoves: "Nothing moves.",
    hours: "When the workroom is open",
    weekdays: ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"],
    opens: "opens",
    closes: "closes",
    closedDays: "Closed on",
    addClosed: "Closed that day",
    open: (day: string) => `Open on ${day} again`,
    keepHours: "Keep the hours",
    more: (count: number) => ` and ${count} more`,
  },
};
