import type { Instrument } from "@pale-cap/contract";
import type { Scope } from "../database/scope";

/** The instruments that the shop has, by name. */
export async function loadInstruments(scope: Scope): Promise<readonly Instrument[]> {
  const rows = await scope.rows.instruments.all({ isRemoved: false }, [["name", "ASC"]]);
  return rows.map(({ isRemoved: _, ...instrument }) => instrument);
}
