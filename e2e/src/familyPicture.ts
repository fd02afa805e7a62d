import { randomUUID } from "node:crypto";
import type { JobDetail } from "@pale-cap/contract";
import type { Page } from "./page";
import { demoLines } from "./views";

/** ESR off the board, unit by unit: one bank dries on all of them, one part of one unit reads apart. */
const readings: Readonly<Record<string, readonly number[]>> = {
  C31: [0.39, 0.42, 0.36, 0.44, 0.4],
  C32: [0.047, 0.05, 0.046, 0.31, 0.052],
  C35: [0.21, 0.19, 0.22, 0.2, 0.21],
};

/** Four more of the demo's console supplies, read place by place, side by side. */
export async function openFamily(address: string, page: Page): Promise<void> {
  const study = (await demoLines(address)).find((line) => line.deviceModel === "Duo brick")?.id as string;
  const units = Array.from({ length: 4 }, (_, n) => ({ id: randomUUID(), serial: `PD-40${31 + 6 * n}` }));
  await post(`${address}/api/jobs/${study}/family/units`, { id: randomUUID(), familyName: "five Duo bricks", units });
  for (const [n, { id }] of [{ id: study }, ...units].entries()) {
    const { positions, fittedParts } = (await (await fetch(`${address}/api/jobs/${id}`)).json()) as JobDetail;
    for (const [at, values] of Object.entries(readings)) {
      const place = positions.find((one) => one.designator === at);
      const part = fittedParts.find((one) => one.positionId === place?.id && one.origin === "found");
      if (!place || !part || n === 0) continue;
      await post(`${address}/api/jobs/${id}/readings`, {
        ...{ id: randomUUID(), targetKind: "part", targetId: place.id, fittedPartId: part.id, quantity: "esr" },
        ...{ value: values[n], coarseCode: null, terminals: null, uncertainty: null, circuitState: "lead_lifted" },
        ...{ frequencyHertz: 100e3, temperatureCelsius: null, isPowered: false, loadAmps: null, rawText: null },
        rig: {
          ...{ isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
          ...{ areLeadsZeroed: true, measuredAt: null },
        },
        ...{ instrument: null, isWithdrawn: false, supersedesId: null, measuredAt: new Date().toISOString() },
        ...{ clockId: null, personId: null },
      });
    }
  }
  await page.open(`/family/${study}`);
  await page.see("five Duo bricks");
  await page.see("times the middle of the family");
}

async function post(url: string, body: object): Promise<void> {
  const headers = { "Content-Type": "application/json" };
  const answer = await fetch(url, { method: "POST", headers, body: JSON.stringify(body) });
  if (!answer.ok) throw new Error(`${url}: ${answer.status} ${await answer.text()}`);
}
