/** What a route asks for. The server checks it; the client hides nothing that the server does not also forbid. */
export const rights = [
  "read",
  "take_in",
  "measure",
  "edit_board",
  "rework",
  "overrule",
  "accept",
  "hand_over",
  "change_rules",
  "keep_stock",
  "change_catalogue",
  "set_up_instruments",
  "export",
  "open_shop",
  "erase",
  /** How a person's own verdicts held; those of others need this too. */
  "see_others_quality",
  "practise",
  /** Which supplies have to be passed, and who passed them. */
  "lead_practice",
] as const;
export type Right = (typeof rights)[number];

/** Roles of people. One role may do all until people have accounts. */
export const roles = ["everyone"] as const;
export type Role = (typeof roles)[number];

/** Who may do what. */
export const rightsOf: Readonly<Record<Role, readonly Right[]>> = { everyone: rights };

/** Which world a job belongs to: numbers, statistics and searches never cross from one to another. */
export const realms = ["shop", "practice", "demo"] as const;
export type Realm = (typeof realms)[number];
