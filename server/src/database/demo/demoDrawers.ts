import { seededRandom } from "@pale-cap/core";
import type { CataloguePartRow } from "../models/catalogueParts";
import type { StockItemRow } from "../models/stockItems";
import type { Scope } from "../scope";
import { uuidFrom } from "./generateCatalogue";

/** Of its own seed: what lies in the drawers leaves the ids of jobs and people as they are. */
const drawerSeed = 20261205;

const daysBefore = (now: Date, days: number) => new Date(now.getTime() - days * 86_400_000);
const dayOf = (moment: Date) => moment.toISOString().slice(0, 10);

/** Every fifth common part lies in a drawer; some things beside them came out of other units, or lay too long. */
export async function fillDrawers(
  scope: Scope,
  catalogue: readonly CataloguePartRow[],
  random: () => number,
): Promise<void> {
  const stocked = catalogue.filter((_, index) => index % 5 === 0);
  const own = seededRandom(drawerSeed);
  for (const [index, part] of stocked.entries()) {
    const count = 2 + (index % 9);
    const receivedOn = dayOf(daysBefore(scope.now, 30 + ((index * 37) % 600)));
    const drawer = `${"ABCD"[index % 4]}${1 + (index % 24)}`;
    const id = uuidFrom(random);
    await putIn(scope, own, { id, cataloguePartId: part.id, drawer, origin: "distributor", receivedOn }, count);
  }
  await putOddOnes(scope, own);
  const tolvan = await nameSuppliers(scope, catalogue, own);
  await useSome(scope, own);
  await orderSome(scope, tolvan, stocked, own);
}

/** Some heaps went into units over the last months, down to their last piece. */
async function useSome({ rows, now }: Scope, own: () => number): Promise<void> {
  const items = await rows.stockItems.all({ drawer: "B2" }, [["id", "ASC"]]);
  for (const item of items.slice(0, 3)) {
    for (let n = 0; n < 12; n++) {
      const moved = { itemId: item.id, reservedDelta: 0, at: daysBefore(now, 300 - 22 * n) };
      await rows.stockMovements.insert({ ...moved, id: uuidFrom(own), kind: "received", countDelta: 1 });
      await rows.stockMovements.insert({ ...moved, id: uuidFrom(own), kind: "fitted", countDelta: -1 });
    }
    const [row] = await rows.stockMovements.all({ itemId: item.id, kind: "received" }, [["at", "DESC"]]);
    const left = (row?.countDelta ?? 2) - 1;
    if (left > 0) {
      const scrapped = {
        itemId: item.id,
        kind: "scrapped",
        countDelta: -left,
        reservedDelta: 0,
        at: daysBefore(now, 9),
      } as const;
      await rows.stockMovements.insert({ ...scrapped, id: uuidFrom(own), note: "leads bent" });
    }
  }
}

/** One order is on its way. */
async function orderSome(
  { rows, now }: Scope,
  supplierId: string,
  parts: readonly CataloguePartRow[],
  own: () => number,
): Promise<void> {
  const orderId = uuidFrom(own);
  await rows.orders.insert({ id: orderId, supplierId, at: daysBefore(now, 2), note: null, personId: null });
  await rows.orderLines.insertAll(
    [parts[40], parts[111]].flatMap((part, n) =>
      part
        ? [
            {
              id: uuidFrom(own),
              orderId,
              place: n + 1,
              cataloguePartId: part.id,
              count: 20,
              unitMinor: Math.max(1, Math.round(part.priceMinor * 0.72)),
            },
          ]
        : [],
    ),
  );
}

async function putIn(scope: Scope, own: () => number, item: Partial<StockItemRow>, count: number): Promise<void> {
  await scope.rows.stockItems.insert({ marking: null, ...item });
  const at = daysBefore(scope.now, 20);
  const movement = { itemId: item.id as string, kind: "received", countDelta: count, reservedDelta: 0, at } as const;
  await scope.rows.stockMovements.insert({ ...movement, id: uuidFrom(own) });
}

async function putOddOnes(scope: Scope, own: () => number): Promise<void> {
  const salvaged = {
    ...{ capacitanceFarads: 1e-3, ratedVolts: 25, temperatureClassCelsius: 105, capacitorClass: "lowz" as const },
    ...{ diameterMetres: 0.0125, heightMetres: 0.02, pitchMetres: 0.005, series: "Tern" },
  };
  const id = uuidFrom(own);
  const out = { id, marking: salvaged, drawer: "S1", origin: "salvaged", usedHours: 1200 } as const;
  await putIn(scope, own, { ...out, note: "out of a dead set-top box" }, 3);
  const read = { itemId: id, at: daysBefore(scope.now, 3), frequencyHertz: 100e3 };
  await scope.rows.stockActs.insert({ ...read, id: uuidFrom(own), kind: "capacitance_read", value: 0.98e-3 });
  await scope.rows.stockActs.insert({ ...read, id: uuidFrom(own), kind: "esr_read", value: 0.019 });
  const bulk = {
    ...{ capacitanceFarads: 120e-6, ratedVolts: 400, temperatureClassCelsius: 105, capacitorClass: "gp" as const },
    ...{ diameterMetres: 0.022, heightMetres: 0.035, pitchMetres: 0.01, series: "Shale" },
  };
  const old = { id: uuidFrom(own), marking: bulk, drawer: "D20", origin: "unknown", dateCode: "2012" } as const;
  await putIn(scope, own, { ...old, note: "from a shop that closed" }, 4);
}

const suppliers = [
  { name: "Brackwater Parts", shippingMinor: 690, freeFromMinor: 6000, days: 2, priceRatio: 1.15 },
  { name: "Tolvan Supply", shippingMinor: 1200, freeFromMinor: 15_000, days: 5, priceRatio: 0.9 },
  { name: "Corner counter", shippingMinor: 0, freeFromMinor: null, days: 0, priceRatio: 1.9 },
] as const;

/** Three invented suppliers: one quick, one cheap, one round the corner with little. */
async function nameSuppliers({ rows }: Scope, parts: readonly CataloguePartRow[], own: () => number): Promise<string> {
  const ids = suppliers.map(() => uuidFrom(own));
  for (const [n, { priceRatio, ...one }] of suppliers.entries()) {
    const id = ids[n] as string;
    await rows.suppliers.insert({ ...one, id, isUsed: true });
    const offered = parts.filter((_, index) => (n === 2 ? index % 6 === 0 : (index + n) % 4 !== 0));
    await rows.offers.insertAll(
      offered.map((part) => {
        const unit = Math.max(1, Math.round(part.priceMinor * priceRatio));
        const breaks: [number, number][] =
          n === 2
            ? [[1, unit]]
            : [
                [1, unit],
                [10, Math.max(1, Math.round(unit * 0.8))],
              ];
        return { supplierId: id, cataloguePartId: part.id, breaks, stock: n === 2 ? 4 : null, days: null };
      }),
    );
  }
  return ids[1] as string;
}
