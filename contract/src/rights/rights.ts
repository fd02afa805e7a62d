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
  /** Accounts, roles, benches of others, forced sign-out. */
  "manage_people",
  "see_audit",
] as const;
export type Right = (typeof rights)[number];

/** Roles that an account can have. */
export const accountRoles = ["lead", "technician", "trainee", "counter"] as const;
export type AccountRole = (typeof accountRoles)[number];

/** `everyone`: whoever is at a machine that runs alone, where nobody signs in. */
export const roles = ["everyone", ...accountRoles] as const;
export type Role = (typeof roles)[number];

const leadsOnly: readonly Right[] = ["open_shop", "see_others_quality", "lead_practice", "manage_people", "see_audit"];
/** What nobody does who is still being taught: a gate is overruled, a rule changed, a job closed, a name erased by others. */
const notForTrainees: readonly Right[] = ["overrule", "accept", "change_rules", "hand_over", "erase"];
const technicians = rights.filter((right) => !leadsOnly.includes(right));

/** Who may do what. */
export const rightsOf: Readonly<Record<Role, readonly Right[]>> = {
  everyone: rights,
  lead: rights,
  technician: technicians,
  trainee: technicians.filter((right) => !notForTrainees.includes(right)),
  counter: ["read", "take_in", "keep_stock", "export"],
};

/** What a PIN of a few digits does not open: here the password is asked for. */
export const passwordRights: readonly Right[] = ["open_shop", "manage_people", "erase"];

/** What somebody signs for: nobody signs in another's name. */
export const signedRights: readonly Right[] = ["overrule", "accept", "hand_over", "change_rules", "erase"];

/** Which world a job belongs to: numbers, statistics and searches never cross from one to another. */
export const realms = ["shop", "practice", "demo"] as const;
export type Realm = (typeof realms)[number];
