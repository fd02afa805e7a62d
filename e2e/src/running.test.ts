import { randomUUID } from "node:crypto";
import type { RunningBench } from "@pale-cap/bench";
import type { JobDetail, RunRow } from "@pale-cap/contract";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { benchOnFreePorts } from "./benchOnFreePorts";
import { type Browser, openBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";
import { shopApi } from "./shopApi";
import { twoRailJob } from "./twoRailJob";

let bench: RunningBench;
let server: ServerUnderTest;
let browser: Browser;
let page: Page;
let api: ReturnType<typeof shopApi>;

beforeAll(async () => {
  bench = await benchOnFreePorts();
  server = await openServer("none", bench.basePort);
  api = shopApi(server);
  browser = await openBrowser();
  page = new Page(browser.driver, server.address);
});
afterAll(async () => {
  await browser?.close();
  await server?.close();
  await bench?.close();
});

const makeJob = async (supply: string) => (await twoRailJob(api, supply, "Runs")).jobId;
const runsOf = (jobId: string) => api.load<readonly RunRow[]>(`/jobs/${jobId}/runs`);
const kindsOf = async (jobId: string) => (await runsOf(jobId)).at(-1)?.events.map((one) => one.kind) ?? [];
const supply = () => bench.bench.supply.state;
const isLoaded = () => Object.keys(supply().loads).length === 2;

describe("a load run over two rails", () => {
  it("is drawn while it goes on, and is cut off by heat: the mains first, the loads after it", async () => {
    const jobId = await makeJob("10-sink-without-paste");
    await page.open(`/jobs/${jobId}/prove`);
    await page.click("A run over what was promised");
    await page.fill("Each step", "2\t");
    await page.see("A step is shorter than three of its samples");
    await page.fill("Each step", "4\t");
    await page.choose("Thermometer looks at", "D8");
    await page.fill("Ends above", "38\t");
    await page.see("11 steps");
    const order: string[] = [];
    const watching = setInterval(() => {
      const now = `${supply().isMainsOn ? "mains" : "-"} ${isLoaded() ? "loads" : "-"}`;
      if (order.at(-1) !== now) order.push(now);
    }, 2);
    try {
      await page.click("Switch the mains on and begin");
      await page.see("Load run running");
      await page.see("step 2 of 11");
      await page.click("drawn over time");
      await page.seeNamed("14 V: volts");
      await page.seeNamed("Heat of D8");
      await page.see("Load run cut off");
    } finally {
      clearInterval(watching);
    }
    await page.see("D8 reached");
    await page.see("above 38");
    expect(order.slice(-2)).toEqual(["- loads", "- -"]);
    expect((await kindsOf(jobId)).slice(-5)).toEqual(["stopping", "mains_off", "rails_empty", "loads_off", "ended"]);
    // What was dwelt through is read: it stands among the readings of the job.
    const { readings } = await api.load<JobDetail>(`/jobs/${jobId}`);
    const unloaded = readings.find((one) => one.quantity === "dc_voltage" && one.loadAmps === 0);
    expect(unloaded?.instrument).toBe("Electronic load");
    await page.click("Back to Prove");
    await page.see("Load run cut off");
  });

  it("is never begun while the gate is shut", async () => {
    const jobId = await makeJob("01-healthy");
    const moment = { at: new Date().toISOString(), clockId: null, personId: null };
    const blown = { id: randomUUID(), kind: "fuse_blown", resistanceOhms: null, hasShort: null, note: null };
    await page.open(`/jobs/${jobId}/prove`);
    await page.click("A run over what was promised");
    await page.see("Switch the mains on and begin");
    // Somebody else logs it meanwhile: the press itself is held against it.
    await api.send(`/jobs/${jobId}/power-events`, { ...blown, ...moment });
    await page.click("Switch the mains on and begin");
    await page.see("A fuse blew: 5 of 5 tests are open");
    expect(supply().isMainsOn).toBe(false);
    await page.open(`/jobs/${jobId}/prove`);
    await page.see("no power-up is offered");
    await page.seeNot("Switch the mains on and begin");
  });
});

describe("a burn-in whose server is killed", () => {
  async function begin(): Promise<string> {
    const jobId = await makeJob("01-healthy");
    await page.open(`/jobs/${jobId}/prove`);
    await page.click("A run over what was promised");
    await page.switchTo("Burn-in");
    await page.fill("For", "0.1\t");
    await page.click("Switch the mains on and begin");
    await page.see("Burn-in running");
    await page.until("have both loads on", async () => isLoaded());
    // Until something of it is stored nobody could take it over.
    await page.until("have stored a sample", async () => {
      const [run] = await runsOf(jobId);
      const { samples } = await api.load<{ samples: readonly unknown[] }>(`/jobs/${jobId}/runs/${run?.id}/samples`);
      return samples.length > 0;
    });
    await server.kill();
    return jobId;
  }

  it("goes on where all is still on; killed again it is interrupted where something went off, and nothing is switched on", async () => {
    const jobId = await begin();
    expect(supply().isMainsOn).toBe(true);
    await server.start();
    await page.until("go on", async () => (await kindsOf(jobId)).includes("went_on_after_gap"));
    expect(supply().isMainsOn && isLoaded()).toBe(true);
    await page.see("Burn-in running");
    await server.kill();
    bench.bench.supply.set({ isMainsOn: false }, performance.now() / 1000);
    const seen: boolean[] = [];
    const watching = setInterval(() => seen.push(supply().isMainsOn), 5);
    await server.start();
    await page.until("be ended", async () => (await kindsOf(jobId)).includes("ended"));
    clearInterval(watching);
    expect(seen.some(Boolean)).toBe(false);
    expect(supply().loads).toEqual({});
    await page.see("Burn-in interrupted");
    const { acts } = await api.load<JobDetail>(`/jobs/${jobId}`);
    expect(acts.filter((one) => one.kind === "burn_in")).toEqual([]);
  });
});
