import { afterAll, beforeAll, expect, it } from "vitest";
import { openShopTest, type ShopTest } from "../testing/shopTest";
import { makeJob, newId } from "../testing/testApp";
import { benchPlaces } from "./benchPlaces";
import { loadInstruments, loadWorkbenches } from "./loadInstruments";

let test: ShopTest;
beforeAll(async () => {
  test = await openShopTest();
});
afterAll(() => test.close());

const bench = (name: string, simulatedSet: number, practiceJobId: string | null = null) => ({
  ...{ id: newId(), version: 1, name, simulatedSet, practiceJobId },
});
const meter = (name: string, benchId: string, isRemoved = false) => ({
  ...{ id: newId(), version: 1, name, kind: "multimeter" as const, driver: "bench_lines" as const },
  ...{ transport: "tcp" as const, host: "127.0.0.1", port: 1, devicePath: null, baudRate: null },
  ...{ isEnabled: false, benchId, channel: 0, checkedOn: null, isRemoved },
});

it("tells of each bench who sits there, what lies there and what stands there, and of none that a practice has", async () => {
  const lead = await test.signedIn("lead");
  const [here, other, practice] = [await makeJob(lead), await makeJob(lead), await makeJob(lead)];
  const [door, window, lesson] = [bench("By the door", 41), bench("By the window", 40), bench("Lesson", 42, practice)];
  await test.inScope(async ({ rows, sql }) => {
    await rows.benches.insertAll([door, window, lesson]);
    await rows.instruments.insertAll([meter("Z", door.id), meter("A", door.id), meter("Gone", door.id, true)]);
    for (const jobId of [here, other])
      await sql("INSERT INTO bench_jobs (job_id, bench_id, since) VALUES ($1, $2, now()) RETURNING job_id", [
        jobId,
        window.id,
      ]);
    await sql("UPDATE jobs SET handed_over_at = now() WHERE id = $1 RETURNING id", [other]);
  });
  await test.signedIn("technician", door.id);
  const left = await test.signedIn("counter", window.id);
  await left.delete("/api/session").expect(204);

  const places = (await test.inScope(benchPlaces)).filter((one) => [door, window, lesson].some((b) => b.id === one.id));
  expect(places).toEqual([
    {
      ...{ id: window.id, name: "By the window", instrumentCount: 0, people: [] },
      jobs: [{ id: here, number: 1, deviceKind: "monitor", deviceMaker: "Brambix", deviceModel: null }],
    },
    {
      ...{ id: door.id, name: "By the door", instrumentCount: 2, jobs: [] },
      people: [{ personId: test.people.technician.personId, name: "technician of the shop" }],
    },
  ]);
  expect((await test.inScope(loadWorkbenches)).slice(-3).map((one) => one.name)).toEqual([
    "By the window",
    "By the door",
    "Lesson",
  ]);
  const standing = (await test.inScope(loadInstruments)).filter((one) => one.benchId === door.id);
  expect(standing.map((one) => [one.name, one.simulatedSet, "isRemoved" in one])).toEqual([
    ["A", 41, false],
    ["Z", 41, false],
  ]);
});
