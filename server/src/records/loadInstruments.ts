import type { Instrument } from "@pale-cap/contract";
import type { Database } from "../database/database";
import type { InstrumentRow } from "../database/models/instruments";

/** The instruments that the shop has, by name. */
export async function loadInstruments({ models }: Database): Promise<readonly Instrument[]> {
  const rows = await models.instruments.findAll({ where: { isRemoved: false }, order: [["name", "ASC"]], raw: true });
  return (rows as unknown as InstrumentRow[]).map(({ isRemoved: _, ...instrument }) => instrument);
}
