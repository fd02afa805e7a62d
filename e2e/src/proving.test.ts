import { randomUUID } from "node:crypto";
import { intakeSchema, type JobDetail } from "@pale-cap/contract";
import { noOverrides } from "@pale-cap/core";
import { boardInsert, netValues, positionValues, readingValues } from "@pale-cap/core/testing";
import { Key } from "selenium-webdriver";
import { describe, expect, it } from "vitest";
import { emptyShop } from "./shopApi";

const shop = emptyShop();

/** A supply whose coupler was renewed, with 5 V at 2 A promised. */
async function makeJob(symptoms: readonly string[] = []): Promise<{ readonly jobId: string; readonly netId: string }> {
  const [jobId, netId, feedId, positionId] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()];
  const device = { deviceKind: "monitor", deviceMaker: "Brambix", deviceModel: "Proof", complaint: "comes and goes" };
  await shop.api.send("/jobs", { id: jobId, ...device, personId: null });
  if (symptoms.length > 0) await tell(jobId, symptoms);
  const changes = [
    boardInsert("net", netId, { ...netValues, name: "5 V", nominalVolts: 5, fullLoadAmps: 2 }),
    boardInsert("net", feedId, { ...netValues, name: "Feedback", section: "feedback", fullLoadAmps: null }),
    boardInsert("position", positionId, {
      ...positionValues,
      ...{ designator: "U2", kind: "optocoupler", netId: feedId, xMetres: 0.03, yMetres: 0.03 },
    }),
  ];
  await shop.api.send(`/jobs/${jobId}/board-edits`, { id: randomUUID(), changes });
  const plan = { writeId: randomUUID(), version: 0, cataloguePartId: null, overrides: noOverrides };
  await shop.api.send(`/jobs/${jobId}/plans/${positionId}`, { ...plan, otherPart: "the same type" }, "PUT");
  for (const step of ["removed", "fitted"]) {
    const item = { id: randomUUID(), positionId, fittedPartId: step === "fitted" ? randomUUID() : null };
    await shop.api.send(`/jobs/${jobId}/ticks`, {
      ...{ id: randomUUID(), step, isDone: true, at: new Date().toISOString(), clockId: null, personId: null },
      items: [{ ...item, stripeDegrees: null }],
    });
  }
  return { jobId, netId };
}
async function tell(jobId: string, symptoms: readonly string[]): Promise<void> {
  const { job } = await shop.api.load<JobDetail>(`/jobs/${jobId}`);
  const names = Object.keys(intakeSchema.fields);
  const values = Object.fromEntries(Object.entries(job).filter(([name]) => names.includes(name)));
  const body = { writeId: randomUUID(), version: job.version, values: { ...values, symptoms } };
  await shop.api.send(`/jobs/${jobId}/intake`, body, "PATCH");
}
const volts = (jobId: string, netId: string, value: number, loadAmps: number) =>
  shop.api.send(`/jobs/${jobId}/readings`, {
    ...readingValues,
    ...{ id: randomUUID(), targetKind: "rail", targetId: netId, fittedPartId: null, quantity: "dc_voltage", value },
    ...{ isPowered: true, loadAmps, frequencyHertz: null, circuitState: null, measuredAt: new Date().toISOString() },
  });

describe("work on the feedback", () => {
  it("asks for volts before the host, and refuses it while a rail reads too high", async () => {
    const { jobId, netId } = await makeJob();
    await shop.page.open(`/jobs/${jobId}/prove`);
    await shop.page.see("Volts before the host");
    await shop.page.click("0 of ");
    await shop.page.see("control or feedback was worked on");
    await volts(jobId, netId, 5.7, 0);
    await shop.page.open(`/jobs/${jobId}/prove`);
    await shop.page.see("5 V read above what a host bears: it stays unplugged");
    await shop.page.see("host refused");
    await shop.page.see("A rail is out of its limits: the host stays unplugged.");
    await volts(jobId, netId, 5.05, 2);
    await shop.page.open(`/jobs/${jobId}/proof`);
    await shop.page.see("5 V: volts over load");
    await shop.page.see("host refused");
  });
});

describe("a fault that comes and goes", () => {
  it("wants nine starts where three of ten had failed: six more after three", async () => {
    const { jobId } = await makeJob(["intermittent"]);
    await shop.page.open(`/jobs/${jobId}/prove`);
    await shop.page.see("Starts as when it failed");
    await shop.page.see("10 more wanted");
    await shop.page.fill("of so many", "10");
    await shop.page.press(Key.ENTER);
    await shop.page.fill("Starts that failed", "3");
    await shop.page.press(Key.ENTER);
    await shop.page.see("9 more wanted");
    for (const left of [8, 7, 6]) {
      await shop.page.click("It started");
      await shop.page.see(`${left} more wanted`);
    }
    const stored = async () => (await shop.api.load<JobDetail>(`/jobs/${jobId}`)).acts;
    await shop.page.until("have them stored", async () => {
      return (await stored()).filter((one) => one.kind === "cold_start").length === 3;
    });
    const acts = await stored();
    expect(acts.filter((one) => one.kind === "starts_before").at(-1)?.numbers).toEqual([3, 10]);
    await shop.page.click("It failed");
    await shop.page.see("it is still there");
    // Left out, with its reason.
    // What failed opened the list.
    await shop.page.click("Burn-in: not done because");
    await shop.page.fill("Why Burn-in is not done", "collected today");
    await shop.page.click("Leave it out");
    await shop.page.see("because collected today");
  });
});
