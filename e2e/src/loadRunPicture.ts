import { randomUUID } from "node:crypto";
import type { Instrument, JobDetail } from "@pale-cap/contract";
import { proposedRun } from "@pale-cap/core";
import { sampleRules } from "@pale-cap/core/testing";
import type { Page } from "./page";
import type { ServerUnderTest } from "./server";
import { shopApi } from "./shopApi";
import { twoRailJob } from "./twoRailJob";

/** A run over two rails of a practice supply whose rectifier sits dry on its sink, shortly before heat cuts it off. */
export async function openLoadRun(server: ServerUnderTest, page: Page): Promise<void> {
  const api = shopApi(server);
  const { jobId, a, b, d8 } = await twoRailJob(api, "10-sink-without-paste", "Halden 19");
  const { instruments } = await api.load<{ readonly instruments: readonly Instrument[] }>("/instruments");
  const idOf = (name: string) => instruments.find((one) => one.name === name)?.id ?? "";
  const { nets } = await api.load<JobDetail>(`/jobs/${jobId}`);
  const plan = proposedRun({
    ...{ kind: "load_run", nets: [...nets].sort((one) => (one.id === a ? -1 : 1)), label: { watts: null, groups: [] } },
    ...{ rules: sampleRules.rail, mainsId: idOf("Mains source"), dwellSeconds: 4, mostKelvinPerMinute: 90 },
    loads: [
      { netId: a, loadId: idOf("Electronic load") },
      { netId: b, loadId: idOf("Electronic load 2") },
    ],
    scope: { scopeId: idOf("Oscilloscope"), netId: a },
    spots: [{ thermometerId: idOf("Spot thermometer"), targetKind: "part", targetId: d8, mostCelsius: 85 }],
  });
  const runId = randomUUID();
  const press = { switchesMains: true, isOverloadMeant: false, isCaseClosed: false, personId: null };
  await api.send(`/jobs/${jobId}/runs`, { id: runId, plan, ...press });
  await page.open(`/jobs/${jobId}/runs/${runId}`);
  await page.driver.sleep(25_000);
  await page.see("step 9 of 11");
}
