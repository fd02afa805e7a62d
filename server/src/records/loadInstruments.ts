import type { Instrument, Workbench } from "@pale-cap/contract";
import type { Scope } from "../database/scope";

/** The instruments that the shop has, by name; each with the set of simulated ones that its bench means. */
export async function loadInstruments(scope: Scope): Promise<readonly Instrument[]> {
  const rows = await scope.rows.instruments.all({ isRemoved: false }, [["name", "ASC"]]);
  const sets = new Map((await loadWorkbenches(scope)).map((one) => [one.id, one.simulatedSet]));
  return rows.map(({ isRemoved: _, ...instrument }) => ({
    ...instrument,
    simulatedSet: sets.get(instrument.benchId) ?? 0,
  }));
}

/** The benches in the order in which they were set up; those of practice jobs among them. */
export function loadWorkbenches(scope: Scope): Promise<Workbench[]> {
  return scope.rows.benches.all({}, [["simulatedSet", "ASC"]]);
}
