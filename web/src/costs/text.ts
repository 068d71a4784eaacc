/** Every word the interface says of costs. */
export const costsText = {
  costs: {
    title: "Costs and quote",
    open: "Costs and quote …",
    intro: "Of the dress as it is saved: its cloth as it is laid, its notions, the hours of its plan.",
    quote: "The quote to print",
    rate: "An hour of hers costs",
    hours: "Hours counted, where not those of the plan",
    adds: "The workroom adds, per cent",
    price: (what: string) => `Price of one: ${what}`,
    amount: (what: string) => `Amount: ${what}`,
    extra: "Something else",
    addExtra: "Add",
    takeAway: (what: string) => `Take ${what} away`,
    together: "Together",
    added: "The workroom's share",
    total: "In all",
    unpriced: (count: number) =>
      count === 1
        ? "One line has no price yet and is not in it."
        : `${count} lines have no price yet and are not in it.`,
    toShelf: "say its price at the shelf",
    notNumber: "A number, 0 or more, is accepted here.",
  },
};
