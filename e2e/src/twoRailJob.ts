import { randomUUID } from "node:crypto";
import { boardInsert, netValues, positionValues } from "@pale-cap/core/testing";
import { layOnBench } from "./layOnBench";
import type { shopApi } from "./shopApi";

/** A practice job with the two rails of a simulated monitor supply, and the rectifier that may run hot. */
export async function twoRailJob(api: ReturnType<typeof shopApi>, supply: string, deviceModel: string) {
  await layOnBench(api, supply);
  const [jobId, a, b, d8] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()];
  const device = { deviceKind: "monitor", deviceMaker: "Brambix", deviceModel, complaint: "quits when warm" };
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
  return { jobId, a, b, d8 };
}
