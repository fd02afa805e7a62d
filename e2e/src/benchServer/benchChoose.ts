import { randomUUID } from "node:crypto";
import { type CatalogueReach, type ReachedParts, routes } from "@pale-cap/contract";
import {
  asCandidate,
  type BankQuestion,
  bankCandidates,
  bankOfTwoKinds,
  bankParts,
  bankQuestion,
  bankReach,
  type CataloguePart,
  canImpedance,
  chooseBank,
  noOverrides,
  orderReplacements,
  type PartReach,
  partReach,
  percentile,
  type Requirement,
  rankReplacements,
  replacementRequirement,
  type Surroundings,
  seededRandom,
} from "@pale-cap/core";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleRules } from "@pale-cap/core/testing";
import pg from "pg";
import { openServer, type ServerUnderTest } from "../server";

const sizes = [1000, 10_000, 50_000, 200_000];
const itemCount = 2000;
const placeCount = 40;
const bankCount = 8;
const bankPlaces = ["C1", "C2", "C3", "C4", "C5"];

/** How long a place's ranking and a bank's choice take, over the wire and reckoned, as the catalogue grows. */
export async function benchChoose(say: (line: string) => void): Promise<void> {
  for (const size of sizes) {
    const server = await openServer("none");
    try {
      await fill(server.databaseUrl, size);
      // What the place needs is reckoned before: by the ripple engine, whatever the catalogue holds.
      const needs = Array.from({ length: placeCount + 1 }, (_, n) => need(n, "C1").requirement);
      const rankings = await timed(placeCount, (n) => rankOnce(server, needs[n] as Requirement));
      say(`${size} parts: a place's ranking ${shown(rankings)} (median, 95th percentile)`);
      const questions = Array.from({ length: bankCount + 1 }, (_, n) => bankOf(n));
      const banks = await timed(bankCount, (n) => bankOnce(server, questions[n] as BankQuestion));
      say(`${size} parts: a bank of five ${shown(banks)}`);
    } finally {
      await server.close();
    }
  }
}

async function timed(count: number, act: (n: number) => Promise<void>): Promise<readonly number[]> {
  await act(count);
  const times: number[] = [];
  for (let n = 0; n < count; n++) {
    const start = performance.now();
    await act(n);
    times.push(performance.now() - start);
  }
  return times;
}

const shown = (times: readonly number[]) =>
  `${percentile(times, 0.5).toFixed(0)} ms, ${percentile(times, 0.95).toFixed(0)} ms`;

const values = [100, 120, 150, 180, 220, 270, 330, 390, 470, 560, 680, 820];
const volts = [6.3, 10, 16, 25, 35, 50, 63];
const cans = [
  [5, 11],
  [6.3, 11],
  [8, 11.5],
  [8, 15],
  [10, 16],
  [10, 20],
  [12.5, 20],
  [12.5, 25],
  [16, 25],
  [16, 31.5],
  [18, 35.5],
] as const;

/** Parts whose cans follow from C and volts, of sixty makers; and heaps of some of them in the drawers. */
async function fill(databaseUrl: string, size: number): Promise<void> {
  const random = seededRandom(size);
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const ids: string[] = [];
  for (let from = 0; from < size; from += 5000) {
    const rows = Array.from({ length: Math.min(5000, size - from) }, (_, n) => {
      const farads = pick(values) * 10 ** Math.floor(random() * 3) * 1e-6;
      const ratedVolts = pick(volts);
      const needed = (farads * ratedVolts) / 0.0165;
      const can = cans.find(([d, l]) => (Math.PI * d * d * l) / 4000 >= needed) ?? ([18, 35.5] as const);
      const [diameterMetres, heightMetres] = [can[0] / 1e3, can[1] / 1e3];
      const capacitorClass = pick(["gp", "lowz", "lowz", "ultra"] as const);
      const found = canImpedance({ diameterMetres, heightMetres, ratedVolts, capacitorClass });
      const id = randomUUID();
      ids.push(id);
      return {
        ...{ id, maker: `Maker ${from % 60}`, series: `S${n % 37}`, code: `P${from + n}`, cls: capacitorClass, farads },
        ...{ v: ratedVolts, t: pick([85, 105, 105]), d: diameterMetres, h: heightMetres, pitch: 0.005 },
        ...{ esr: found.impedanceMaxOhms * (0.9 + 0.2 * random()), ripple: found.ratedRippleAmpsRms },
        ...{ life: pick([2000, 4000, 7000]), price: 5 + Math.floor(200 * random()) },
      };
    });
    await client.query(
      `INSERT INTO catalogue_parts (id, maker, series, order_code, capacitor_class, capacitance_farads, rated_volts,
         temperature_class_celsius, diameter_metres, height_metres, pitch_metres, esr_ohms, ripple_amps_rms,
         rated_life_hours, price_minor)
       SELECT id, maker, series, code, cls, farads, v, t, d, h, pitch, esr, ripple, life, price
       FROM json_to_recordset($1::json) AS n(id uuid, maker text, series text, code text, cls text, farads float8,
         v float8, t float8, d float8, h float8, pitch float8, esr float8, ripple float8, life float8, price int)`,
      [JSON.stringify(rows)],
    );
  }
  await client.query(
    `WITH item AS (INSERT INTO stock_items (id, catalogue_part_id, drawer)
       SELECT gen_random_uuid(), part, 'A1' FROM unnest($1::uuid[]) AS part RETURNING id)
     INSERT INTO stock_movements (id, at, item_id, kind, count_delta, reserved_delta)
       SELECT gen_random_uuid(), now(), item.id, 'received', 5, 0 FROM item`,
    [Array.from({ length: itemCount }, (_, n) => ids[(n * 7919) % ids.length])],
  );
  await client.end();
}

async function reached(server: ServerUnderTest, reach: PartReach): Promise<ReachedParts> {
  const query = Object.entries(reach satisfies CatalogueReach).map(([name, value]) => `${name}=${value ?? ""}`);
  const answer = await fetch(`${server.address}${routes.catalogueReach}?${query.join("&")}`);
  return (await answer.json()) as ReachedParts;
}

function need(n: number, designator: string): { readonly requirement: Requirement; readonly around: Surroundings } {
  const farads = (values[n % values.length] as number) * 1e-5;
  const net = sampleNet({ nominalVolts: [5, 12, 19][n % 3] as number, fullLoadAmps: 0.4 + (n % 5) / 5 });
  const positions = bankPlaces.map((one, at) => samplePosition(one, { xMetres: 0.02 + 0.02 * at }));
  const fittedParts = bankPlaces.map((one) =>
    samplePart(one, { capacitanceFarads: farads, ratedVolts: 25, diameterMetres: 0.0125 }),
  );
  const around: Surroundings = {
    facts: sampleJob({ nets: [net], positions, fittedParts, readings: [] }),
    ...{ chosen: new Map(), emptyIds: new Set(), lid: null, rail: sampleRules.rail, mainsHertz: 50 },
  };
  const position = samplePosition(designator);
  const part = samplePart(designator, { capacitanceFarads: farads, ratedVolts: 25, diameterMetres: 0.0125 });
  const question = { position, part, net, voltageSchool: "rail", around } as const;
  return { requirement: replacementRequirement(question, noOverrides) as Requirement, around };
}

async function rankOnce(server: ServerUnderTest, requirement: Requirement): Promise<void> {
  const { parts } = await reached(server, partReach(requirement));
  const { survivors } = rankReplacements(requirement, "output", parts);
  orderReplacements(survivors, {
    ...{ order: "longest_life", warrantyHours: 4000, returnCostMinor: 3000, stockCountOf: () => 0 },
  });
}

function bankOf(n: number): BankQuestion {
  const needs = bankPlaces.map((one) => ({ position: samplePosition(one), ...need(n, one) }));
  const around = (needs[0] as (typeof needs)[number]).around;
  return { ...bankQuestion(needs, around), mode: n % 2 ? "life" : "price", candidates: [] };
}

async function bankOnce(server: ServerUnderTest, question: BankQuestion): Promise<void> {
  const { parts } = await reached(server, bankReach({ ...question, isLowEsrOnly: true }));
  const fits: readonly CataloguePart[] = bankParts(parts, question, "output", true);
  if (fits.length === 0) return;
  const search = bankOfTwoKinds({ ...question, candidates: fits.map(asCandidate) }, 5);
  while (!search.next().done);
  chooseBank({ ...question, candidates: bankCandidates(fits, question) }, 5);
}
