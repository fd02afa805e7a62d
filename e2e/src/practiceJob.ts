import { randomUUID } from "node:crypto";
import type { HandAct, JobDetail, PracticeState } from "@pale-cap/contract";
import type { CircuitState } from "@pale-cap/core";
import type { shopApi } from "./shopApi";

/** A practice supply as a journey prepares it: begun, handled, read, through the same doors. */
export async function practiceJob(api: Pick<ReturnType<typeof shopApi>, "send" | "load">, supply: string) {
  const jobId = randomUUID();
  const { positions, fittedParts } = await api.send<JobDetail>("/practice", {
    ...{ id: jobId, supply, listId: null, personId: null },
  });
  const act = (kind: HandAct["kind"], more: object = {}) =>
    api.send<PracticeState>(`/jobs/${jobId}/practice/acts`, {
      id: randomUUID(),
      act: { kind, ...more },
      personId: null,
    });
  const hint = (level: number) =>
    api.send<PracticeState>(`/jobs/${jobId}/practice/hints`, { id: randomUUID(), level, personId: null });
  const readEsr = (at: string, value: number, circuitState: CircuitState) => {
    const place = positions.find((one) => one.designator === at);
    const part = fittedParts.find((one) => one.positionId === place?.id);
    return api.send(`/jobs/${jobId}/readings`, {
      ...{ id: randomUUID(), targetKind: "part", targetId: place?.id, fittedPartId: part?.id, quantity: "esr", value },
      ...{ coarseCode: null, terminals: null, uncertainty: null, circuitState, frequencyHertz: 100e3 },
      ...{ temperatureCelsius: null, isPowered: false, loadAmps: null, rawText: null, isSimulated: true },
      rig: {
        ...{ isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
        ...{ areLeadsZeroed: true, measuredAt: null },
      },
      ...{ instrument: null, isWithdrawn: false, supersedesId: null, measuredAt: new Date().toISOString() },
      ...{ clockId: null, personId: null },
    });
  };
  const end = (chances: Readonly<Record<string, number>>) =>
    api.send<PracticeState>(`/jobs/${jobId}/practice/end`, {
      ...{ id: randomUUID(), personId: null },
      answer: [...positions.map((one) => one.designator), "outside"].map((at) => ({
        at,
        badProbability: chances[at] ?? 0.04,
      })),
    });
  const state = () => api.load<PracticeState>(`/jobs/${jobId}/practice`);
  return { jobId, act, hint, readEsr, end, state };
}
