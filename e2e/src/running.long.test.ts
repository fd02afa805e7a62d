import { randomUUID } from "node:crypto";
import type { JobDetail, RunRow } from "@pale-cap/contract";
import { describe, expect, it } from "vitest";
import { benchShop } from "./benchShop";
import { twoRailJob } from "./twoRailJob";

const shop = benchShop();

const makeJob = async (supply: string) => (await twoRailJob(shop.api, supply, "Runs")).jobId;
const runsOf = (jobId: string) => shop.api.load<readonly RunRow[]>(`/jobs/${jobId}/runs`);
const kindsOf = async (jobId: string) => (await runsOf(jobId)).at(-1)?.events.map((one) => one.kind) ?? [];
const supply = () => shop.bench.bench.supply.state;
const isLoaded = () => Object.keys(supply().loads).length === 2;

describe("a load run over two rails", () => {
  it("is drawn while it goes on, and is cut off by heat: the mains first, the loads after it", async () => {
    const jobId = await makeJob("10-sink-without-paste");
    await shop.page.open(`/jobs/${jobId}/prove`);
    await shop.page.click("A run over what was promised");
    await shop.page.fill("Each step", "2\t");
    await shop.page.see("A step is shorter than three of its samples");
    await shop.page.fill("Each step", "4\t");
    await shop.page.choose("Thermometer looks at", "D8");
    await shop.page.fill("Ends above", "38\t");
    await shop.page.see("11 steps");
    const order: string[] = [];
    const watching = setInterval(() => {
      const now = `${supply().isMainsOn ? "mains" : "-"} ${isLoaded() ? "loads" : "-"}`;
      if (order.at(-1) !== now) order.push(now);
    }, 2);
    try {
      await shop.page.click("Switch the mains on and begin");
      await shop.page.see("Load run running");
      await shop.page.see("step 2 of 11");
      await shop.page.click("drawn over time");
      await shop.page.seeNamed("14 V: volts");
      await shop.page.seeNamed("Heat of D8");
      await shop.page.see("Load run cut off");
    } finally {
      clearInterval(watching);
    }
    await shop.page.see("D8 reached");
    await shop.page.see("above 38");
    expect(order.slice(-2)).toEqual(["- loads", "- -"]);
    expect((await kindsOf(jobId)).slice(-5)).toEqual(["stopping", "mains_off", "rails_empty", "loads_off", "ended"]);
    // What was dwelt through is read: it stands among the readings of the job.
    const { readings } = await shop.api.load<JobDetail>(`/jobs/${jobId}`);
    const unloaded = readings.find((one) => one.quantity === "dc_voltage" && one.loadAmps === 0);
    expect(unloaded?.instrument).toBe("Electronic load");
    await shop.page.click("Back to Prove");
    await shop.page.see("Load run cut off");
  });

  it("is never begun while the gate is shut", async () => {
    const jobId = await makeJob("01-healthy");
    const moment = { at: new Date().toISOString(), clockId: null, personId: null };
    const blown = { id: randomUUID(), kind: "fuse_blown", resistanceOhms: null, hasShort: null, note: null };
    await shop.page.open(`/jobs/${jobId}/prove`);
    await shop.page.click("A run over what was promised");
    await shop.page.see("Switch the mains on and begin");
    // Somebody else logs it, and this page has not heard of it yet: the press itself is held against it.
    await shop.page.leaveUnanswered("/changes");
    await shop.api.send(`/jobs/${jobId}/power-events`, { ...blown, ...moment });
    await shop.page.click("Switch the mains on and begin");
    await shop.page.see("A fuse blew: 5 of 5 tests are open");
    expect(supply().isMainsOn).toBe(false);
    await shop.page.open(`/jobs/${jobId}/prove`);
    await shop.page.see("no power-up is offered");
    await shop.page.seeNot("Switch the mains on and begin");
  });
});

describe("a burn-in whose server is killed", () => {
  async function begin(): Promise<string> {
    const jobId = await makeJob("01-healthy");
    await shop.page.open(`/jobs/${jobId}/prove`);
    await shop.page.click("A run over what was promised");
    await shop.page.switchTo("Burn-in");
    await shop.page.fill("For", "0.1\t");
    await shop.page.click("Switch the mains on and begin");
    await shop.page.see("Burn-in running");
    await shop.page.until("have both loads on", async () => isLoaded());
    // Until something of it is stored nobody could take it over.
    await shop.page.until("have stored a sample", async () => {
      const [run] = await runsOf(jobId);
      const { samples } = await shop.api.load<{ samples: readonly unknown[] }>(
        `/jobs/${jobId}/runs/${run?.id}/samples`,
      );
      return samples.length > 0;
    });
    await shop.server.kill();
    return jobId;
  }

  it("goes on where all is still on; killed again it is interrupted where something went off, and nothing is switched on", async () => {
    const jobId = await begin();
    expect(supply().isMainsOn).toBe(true);
    await shop.server.start();
    await shop.page.until("go on", async () => (await kindsOf(jobId)).includes("went_on_after_gap"));
    expect(supply().isMainsOn && isLoaded()).toBe(true);
    await shop.page.see("Burn-in running");
    await shop.server.kill();
    shop.bench.bench.supply.set({ isMainsOn: false }, performance.now() / 1000);
    const seen: boolean[] = [];
    const watching = setInterval(() => seen.push(supply().isMainsOn), 5);
    await shop.server.start();
    await shop.page.until("be ended", async () => (await kindsOf(jobId)).includes("ended"));
    clearInterval(watching);
    expect(seen.some(Boolean)).toBe(false);
    expect(supply().loads).toEqual({});
    await shop.page.see("Burn-in interrupted");
    const { acts } = await shop.api.load<JobDetail>(`/jobs/${jobId}`);
    expect(acts.filter((one) => one.kind === "burn_in")).toEqual([]);
  });
});
