/** What is said of the demo and of a shop of one's own. */
export const shopWords = {
  demo: "Every job, person, maker and part here is invented: to look round, to try, to spoil. No customer's unit belongs here.",
  bothStay: "A new, empty shop is made beside the demo. Both stay; House rules lead back here.",
  toDemo: "The demo shop has invented jobs to look round in. This shop is closed while it is open, and stays as it is.",
  cannotOpen: "This server was given one database. Start it without DATABASE_URL to have a shop beside the demo.",
  waiting: (count: number) =>
    count === 1
      ? "One entry still waits to be stored: it goes first."
      : `${count} entries still wait to be stored: they go first.`,
} as const;
