import type { FactMoment } from "../src/readings/factMoment";

/** A fact of the page that looks at it, in the order in which a test gives it. */
export const sampleMoment: FactMoment = { sequence: null, clockId: "clock-1", receivedAt: null, clockAheadSeconds: 0 };
