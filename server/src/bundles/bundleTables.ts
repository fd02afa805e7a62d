import type { AllRows } from "../database/scope";

type TableName = keyof AllRows;

/** How the rows of a table hang on a job. */
type Owner = "job" | "board" | "position" | "run";

export interface BundleTable {
  readonly name: TableName;
  readonly owner: Owner;
  /** What is this shop's own: not written, and null or given anew where it comes in. */
  readonly leavesOut: readonly string[];
  /** Has a place in the shop's one order: it stands in the manifest, with its receipt. */
  readonly isFact: boolean;
  /** Only with the customer. */
  readonly isCustomers?: boolean;
}

const receipt = ["sequence", "receivedAt", "clockAheadSeconds"] as const;
const fact = (name: TableName, leavesOut: readonly string[] = []): BundleTable => ({
  ...{ name, owner: "job", isFact: true, leavesOut: [...receipt, ...leavesOut] },
});
const plain = (name: TableName, owner: Owner, leavesOut: readonly string[] = []): BundleTable => ({
  ...{ name, owner, leavesOut, isFact: false },
});

/** All tables of a job, from what is pointed at to what points. */
export const bundleTables: readonly BundleTable[] = [
  plain("jobs", "job", ["number", "realm", "origin", "comebackOf"]),
  { ...plain("jobCustomers", "job"), isCustomers: true },
  plain("boards", "job"),
  plain("nets", "board"),
  plain("positions", "board"),
  plain("fittedParts", "position", ["stockItemId"]),
  plain("replacementPlans", "position", ["stockItemId"]),
  plain("energyStores", "job"),
  plain("photos", "job", ["imageSha256", "thumbnailSha256"]),
  plain("teardownSteps", "job"),
  fact("readings"),
  fact("signObservations"),
  fact("captures", ["samplesSha256"]),
  fact("verdictOverrules"),
  fact("chargeEvents"),
  fact("powerEvents"),
  fact("teardownReturns"),
  fact("reworkTicks"),
  fact("jobActs"),
  fact("openPointAcceptances"),
  fact("quotes"),
  fact("quoteAnswers"),
  fact("jobClosings"),
  fact("judgementSnapshots"),
  { ...plain("proofRuns", "job", ["sequence"]), isFact: true },
  { ...plain("proofRunEvents", "run", ["sequence"]), isFact: true },
  { ...plain("reports", "job", ["sequence"]), isFact: true, isCustomers: true },
  { ...plain("reportDocuments", "job"), isCustomers: true },
];

/** Text with its keys in one order, whatever order they were stored in: the same rows are the same bytes. */
export function canonicalJson(value: unknown): string {
  return `${JSON.stringify(sorted(value), null, 1)}\n`;
}

function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0))
      .map(([key, one]) => [key, sorted(one)]),
  );
}
