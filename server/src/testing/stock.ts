import { seededRandom } from "@pale-cap/core";
import { generateCatalogue } from "../database/demo/generateCatalogue";
import type { CataloguePartRow } from "../database/models/catalogueParts";
import { newId, type Sender, sender } from "./testApp";

const { id: _, source: __, ...entry } = generateCatalogue(seededRandom(3))[0] as CataloguePartRow;

/** A part of the invented catalogue, without an id of its own. */
export const catalogueEntry = entry;

/** What is noted of a heap that nothing special is known of. */
export const heapValues = {
  ...{ drawer: "B3", origin: "distributor", lot: null, dateCode: null, receivedOn: null, usedHours: null, note: null },
};

/** Lays a heap of one piece into a drawer, or what is said of it. */
export async function makeHeap(app: Sender, more: object): Promise<string> {
  const id = newId();
  const heap = { id, cataloguePartId: null, marking: null, values: heapValues, count: 1, personId: null };
  await sender(app)
    .post("/api/stock")
    .send({ ...heap, ...more })
    .expect(201);
  return id;
}
