import { randomUUID } from "node:crypto";
import type { Instrument, JobDetail } from "@pale-cap/contract";
import { proposedRun } from "@pale-cap/core";
import { boardInsert, netValues, positionValues, sampleRules } from "@pale-cap/core/testing";
import type { Page } from "./page";
import type { ServerUnderTest } from "./server";
import { shopApi } from "./shopApi";

/** A run over two rails of a practice supply whose rectifier sits dry on its sink, shortly before heat cuts it off. */
export async function openLoadRun(server: ServerUnderTest, page: Page): Promise<void> {
  const api = shopApi(server);
  await api.send("/bench-supply", { name: "10-sink-without-paste" }, "PUT");
  const [jobId, a, b, d8] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()];
  const device = {
    deviceKind: "monitor",
    deviceMaker: "Brambix",
    deviceModel: "Halden 19",
    complaint: "quits when warm",
  };
  await api.send("/jobs", { id: jobId, ...device, personId: null, isPractice: true });
  const output = { ...netValues, section: "output" as const };
  const place = {
    ...positionValues,
    designator: "D8",
    kind: "diode" as const,
    netId: a,
    xMetres: 0.09,
    yMetres: 0.012,
  };
  const changes = [
    boardInsert("net", a, { ...output, name: "14 V", nominalVolts: 14, fullLoadAmps: 2.2 }),
    boardInsert("net", b, { ...output, name: "5 V", nominalVolts: 5, fullLoadAmps: 1.8 }),
    boardInsert("position", d8, place),
  ];
  await api.send(`/jobs/${jobId}/board-edits`, { id: randomUUID(), changes });
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
