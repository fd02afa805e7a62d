import { type AccountRole, passwordRights, type Right, type Role } from "@pale-cap/contract";

export const roleLabels: Readonly<Record<Role, string>> = {
  everyone: "nobody signs in",
  lead: "lead",
  technician: "technician",
  trainee: "trainee",
  counter: "counter",
};

/** What a role is for, where somebody is given one. */
export const roleNotes: Readonly<Record<AccountRole, string>> = {
  lead: "Everything, accounts and the audit included.",
  technician: "All work on jobs, parts and instruments, and the house rules.",
  trainee:
    "Measures and repairs; does not overrule a verdict or a gate, accept an open point, change a rule, hand over or erase.",
  counter: "Takes units in, quotes, orders and drawers, papers; does not measure or repair.",
};

/** What somebody did, by the kind of the write or the name of the act. */
const acts: Readonly<Record<string, string>> = {
  verdict_overruled: "overruled a verdict",
  power_gate_overruled: "overruled the gate before the mains",
  open_point_accepted: "accepted an open point",
  exported: "took something out of the program",
  erased: "erased a customer",
  rule_changed: "changed a house rule",
  catalogue_imported: "took in a catalogue",
  signed_in: "signed in",
  signed_out: "signed out",
  sign_in_refused: "was refused at signing in",
  bench_taken_over: "took over the bench by PIN",
  bench_left: "left the bench",
  password_changed: "changed the password",
  pin_changed: "changed the PIN",
  link_made: "made a link for a new password",
  link_used: "set a password by a link",
  account_made: "made an account",
  account_changed: "changed an account",
  signed_out_by_lead: "signed somebody out",
  reading: "logged a reading",
  signs: "logged what was seen",
  overrule: "overruled a verdict",
  charge: "logged a charge",
  power: "logged a test or the mains",
  ticks: "ticked work",
  return: "put a piece back",
  acceptance: "accepted an open point",
  act: "logged an act",
  quote: "made a quote",
  quoteAnswer: "noted the answer to a quote",
  account: "made an account",
  "account edit": "changed an account",
  "account sign-out": "signed somebody out",
  bench: "set up a bench",
  "bench edit": "changed a bench",
  "bench job": "laid a job on a bench",
  "bench job off": "took a job off a bench",
  "bench notes": "changed notes of a board type",
  board: "edited a board",
  "new board": "added a board",
  "board removed": "took a board off",
  "board type": "stored a board type",
  "use board type": "laid a board type on a job",
  "bundle import": "took in a bundle",
  capture: "stored a capture",
  "capture analysis": "read a capture anew",
  "capture removal": "took a capture off",
  "catalogue import": "took in a catalogue",
  "import of other parts": "took in other parts",
  comeback: "noted a return",
  erasure: "erased a customer",
  export: "took something out of the program",
  "follow the study": "followed the study of a family",
  "hand-over": "handed over, or opened a job again",
  "house-rule": "changed a house rule",
  instrument: "set up an instrument",
  "instrument edit": "changed an instrument",
  "instrument removal": "took an instrument off",
  intake: "changed the intake",
  job: "took a unit in",
  offer: "changed an offer",
  order: "ordered",
  "order edit": "changed an order",
  receipt: "received an order",
  paper: "filed a paper",
  "paper removal": "took a paper off",
  photo: "took a photo",
  "photo edit": "changed a photo",
  plan: "chose a part",
  practice: "began to practise",
  "practice act": "did something in practice",
  "practice end": "ended a practice supply",
  "practice hint": "took a hint",
  "practice list": "made a practice list",
  "practice list removal": "took a practice list off",
  run: "began a run",
  "run word": "told a run to go on, hold or stop",
  "stock act": "tested what lies in a drawer",
  "stock item": "filled a drawer",
  "stock item edit": "changed a drawer",
  "stock movement": "took from a drawer, or put back",
  store: "named a store of energy",
  "store edit": "changed a store of energy",
  supplier: "added a supplier",
  "supplier edit": "changed a supplier",
  teardown: "noted a step of taking apart",
  "teardown edit": "changed a step of taking apart",
  units: "made units of a family",
  "verdict-summary": "wrote the verdict in their own words",
};

/** As it is read in the audit; an act of a newer version keeps its own name. */
export const auditActText = (act: string): string => acts[act] ?? act;
export const hasAuditWords = (act: string): boolean => act in acts;

const refusals: Readonly<Partial<Record<Right, string>>> = {
  overrule: "Overruling is for a technician or the lead.",
  accept: "Open points are accepted by a technician or the lead.",
  hand_over: "Handing over, and opening again, is for a technician or the lead.",
  change_rules: "House rules are changed by a technician or the lead.",
  erase: "Erasing a customer is for a technician or the lead.",
  measure: "Measuring is for those who work at a bench.",
  rework: "Rework is for those who work at a bench.",
  edit_board: "The board is entered by those who work at a bench.",
  set_up_instruments: "Instruments are set up by those who work at a bench.",
  change_catalogue: "The catalogue is kept by those who work at a bench.",
  practise: "Practice is for those who work at a bench.",
  lead_practice: "Lists are made by the lead.",
  open_shop: "Which shop is open is for the lead to say.",
  manage_people: "Accounts are kept by the lead.",
  see_audit: "The audit is for the lead.",
  see_others_quality: "How others judge is for the lead to see.",
};

/** Said in the place of what somebody may not do. */
export function rightWords(right: Right, by: "password" | "pin"): string {
  const words = refusals[right] ?? "This is for others to do.";
  return by === "pin" && passwordRights.includes(right)
    ? `${words} By a PIN it is not open: sign in with the password.`
    : words;
}
