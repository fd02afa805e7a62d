import { type RunningBench, startBench } from "@pale-cap/bench";
import type { Instrument, Workbench } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { newId, openTestApp, type TestApp } from "../testing/testApp";
import { InstrumentHub } from "./instrumentHub";
import { StoredLeases } from "./lineLeases";
import { setUpInstruments } from "./setUpInstruments";

let bench: RunningBench;
let test: TestApp;
beforeAll(async () => {
  for (let tries = 0; !bench && tries < 20; tries++) {
    bench = await startBench(20_000 + 8 * Math.floor(Math.random() * 2400)).catch(() => bench);
  }
  test = await openTestApp({}, "shop", bench.basePort);
});
afterAll(async () => {
  await test.close();
  await bench.close();
});

const now = () => new Date();
const times = { pollMilliseconds: 15, patienceMilliseconds: 300, retryMilliseconds: 30, longestWaitMilliseconds: 100 };
async function until(holds: () => boolean): Promise<void> {
  for (let tries = 0; !holds(); tries++) {
    if (tries > 400) throw new Error("It never came to that.");
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
}

describe("leases", () => {
  it("give what nobody holds, to one process, and what was let go to the next", async () => {
    const [first, second] = [new StoredLeases(test.database, newId()), new StoredLeases(test.database, newId())];
    const [a, b] = [newId(), newId()];
    await Promise.all([first.want([a]), second.want([a])]);
    expect([first.isMine(a), second.isMine(a)].filter(Boolean)).toHaveLength(1);
    const [holder, other] = first.isMine(a) ? [first, second] : [second, first];
    await other.want([a, b]);
    expect(other.isMine(b)).toBe(true);
    expect(other.isMine(a)).toBe(false);
    await holder.drop([a]);
    expect(holder.isMine(a)).toBe(false);
    await other.want([a]);
    expect(other.isMine(a)).toBe(true);
    await other.close();
    await holder.want([b]);
    expect(holder.isMine(b)).toBe(true);
    await holder.close();
  });
  it("of a process that died run out", async () => {
    const [dead, next] = [newId(), new StoredLeases(test.database, newId())];
    const [held, over] = [newId(), newId()];
    await test.inScope(({ sql }) =>
      sql(
        `INSERT INTO leases VALUES ($1, $3, clock_timestamp() + interval '5 s'), ($2, $3, clock_timestamp() - interval '1 s')
         RETURNING subject_id`,
        [held, over, dead],
      ),
    );
    await next.want([held, over]);
    expect([next.isMine(held), next.isMine(over)]).toEqual([false, true]);
    await next.close();
  });

  it("let one process of the server speak to an instrument, and the other say so", async () => {
    const processes = [0, 1].map(() => {
      const leases = new StoredLeases(test.database, newId());
      return { leases, hub: new InstrumentHub(bench.basePort, now, times, leases) };
    });
    for (const { hub } of processes) {
      await setUpInstruments({ database: test.database, instruments: hub, now });
      hub.listen(() => undefined);
    }
    const [mine, others] = processes.map(({ hub }) => hub) as [InstrumentHub, InstrumentHub];
    await until(() => mine.states.every((one) => one.status === "ready"));
    await until(() => others.states.every((one) => one.status === "elsewhere"));
    const id = mine.states[0]?.id as string;
    expect(others.line(id)).toBeNull();
    expect(mine.line(id)).not.toBeNull();
    mine.close();
    await processes[0]?.leases.close();
    await setUpInstruments({ database: test.database, instruments: others, now });
    await until(() => others.states.every((one) => one.status === "ready"));
    others.close();
    await processes[1]?.leases.close();
  });
});

it("a second bench has simulated instruments and a supply of its own", async () => {
  const id = newId();
  await request(test.app).post("/api/benches").send({ id, name: "By the window", hasSimulated: true }).expect(201);
  const benches = (await request(test.app).get("/api/benches").expect(200)).body as readonly Workbench[];
  expect(benches.map((one) => [one.name, one.simulatedSet])).toEqual([
    ["Bench 1", 0],
    ["By the window", 1],
  ]);
  const { instruments } = (await request(test.app).get("/api/instruments")).body as { instruments: Instrument[] };
  const own = instruments.filter((one) => one.benchId === id);
  expect(own.map((one) => one.kind).sort()).toEqual([
    "lcr",
    "load",
    "load",
    "mains",
    "multimeter",
    "oscilloscope",
    "thermometer",
  ]);
  test.instruments.listen(() => undefined);
  const readyOf = (ids: readonly string[]) =>
    test.instruments.states.filter((one) => ids.includes(one.id) && one.status === "ready");
  await until(() => readyOf(own.map((one) => one.id)).length === own.length);
  const supply = (benchId: string) => test.instruments.askSimulated("SYST:SCEN?", benchId);
  await test.instruments.askSimulated("SYST:SCEN 02-dried-output-bank\nSYST:SCEN?", id);
  expect(await supply(id)).toBe("02-dried-output-bank");
  expect(await supply(benches[0]?.id as string)).toBe("01-healthy");
});
