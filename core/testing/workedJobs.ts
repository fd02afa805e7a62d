import type { BoardPosition, PartKind } from "../src/board/board";
import type { JobFacts } from "../src/facts/jobFacts";
import type { Reading } from "../src/readings/reading";
import {
  sampleCharge,
  sampleJob,
  sampleNet,
  samplePart,
  samplePosition,
  sampleReading,
  sampleStore,
} from "./sampleJob";
import { sampleMoment } from "./sampleMoment";

const inCircuit = { circuitState: "in_circuit" } as const;
const other = (designator: string, kind: PartKind, netId: string | null, more: Partial<BoardPosition> = {}) =>
  samplePosition(designator, { kind, netId, polarityMark: null, boardNegativeDegrees: null, ...more });
const pin = (designator: string, terminals: string, quantity: Reading["quantity"], value: number | null) =>
  sampleReading(designator, {
    ...{ terminals, quantity, value, fittedPartId: null, frequencyHertz: null, ...inCircuit },
    ...(value === null && { coarseCode: "over_range" as const }),
  });

const nets = [
  sampleNet({ id: "net-bulk", name: "bulk", section: "bulk", nominalVolts: 325, fullLoadAmps: null }),
  sampleNet({ id: "net-vcc", name: "VCC", section: "vcc", nominalVolts: 15, fullLoadAmps: null }),
  sampleNet({ id: "net-12" }),
  sampleNet({ id: "net-5", name: "5 V", nominalVolts: 5, fullLoadAmps: 2, rippleLimitVolts: 0.05 }),
  sampleNet({
    ...{ id: "net-post", name: "5 V post", section: "output-post", nominalVolts: 5, fullLoadAmps: null },
    network: { arrangement: "parallel", behindNetId: "net-5", chokeHenrys: 4.7e-6, chokeOhms: 0.02 },
  }),
];
const positions = [
  samplePosition("C1", { netId: "net-bulk", xMetres: 0.01, yMetres: 0.01 }),
  samplePosition("C2", { netId: "net-vcc", xMetres: 0.03, yMetres: 0.01 }),
  samplePosition("C10", { xMetres: 0.06, yMetres: 0.02 }),
  samplePosition("C11", { xMetres: 0.07, yMetres: 0.02 }),
  samplePosition("C20", { netId: "net-5", xMetres: 0.06, yMetres: 0.05 }),
  samplePosition("C21", { netId: "net-post", xMetres: null, yMetres: null }),
  other("F1", "fuse", null),
  other("NT1", "ntc", "net-bulk", { markedOhms: 8 }),
  other("BR1", "bridge", "net-bulk"),
  other("Q1", "transistor", "net-bulk"),
  other("R1", "resistor", "net-bulk", { markedOhms: 0.22 }),
  other("R2", "resistor", "net-vcc", { markedOhms: 47e3 }),
  other("U1", "ic", "net-vcc"),
  other("D10", "diode", "net-12"),
  other("OK1", "optocoupler", null),
  other("T1", "transformer", null),
  other("L1", "choke", "net-5"),
  other("VR1", "regulator", "net-5"),
  other("FAN", "fan", "net-12"),
  other("X1", "connector", "net-12"),
];
const fittedParts = [
  samplePart("C1", { capacitanceFarads: 120e-6, ratedVolts: 400, diameterMetres: 0.022, heightMetres: 0.03 }),
  samplePart("C2", { capacitanceFarads: 47e-6, ratedVolts: 50, diameterMetres: 0.005, heightMetres: 0.011 }),
  samplePart("C10"),
  samplePart("C11"),
  samplePart("C20", { capacitanceFarads: 2200e-6, ratedVolts: 10 }),
  samplePart("C21", { capacitanceFarads: 470e-6, ratedVolts: 10 }),
];
const board = { nets, positions, fittedParts };

/** Jobs at four places of a repair, on one board with a part of every kind. */
export const workedJobs: Readonly<Record<string, JobFacts>> = {
  "nothing read": sampleJob({ ...board, symptoms: ["dead_no_light", "fuse_blown"] }),
  "a start on the output side": sampleJob({
    ...board,
    readings: [
      sampleReading("C10", { value: 0.012, ...inCircuit }),
      sampleReading("C20", { value: 0.4 }),
      sampleReading("C20", { quantity: "capacitance", value: 6e-4, frequencyHertz: 120 }),
      pin("D10", "A,K", "diode_drop", 0.52),
      pin("OK1", "A,K", "diode_drop", 1.15),
    ],
    signs: [
      {
        ...{ fittedPartId: "part-C20", sign: "domed", state: "seen", sequence: 1 },
        observedAt: "2026-11-23T10:00:00Z",
      },
    ],
  }),
  "a primary that blew": sampleJob({
    ...board,
    symptoms: ["dead_no_light", "fuse_blown", "bang_heard"],
    energyStores: [sampleStore()],
    chargeEvents: [
      sampleCharge("voltage_measured", 0, { volts: 311 }),
      sampleCharge("voltage_measured", 40, { volts: 1.2, isMeterProved: true }),
      sampleCharge("voltage_measured", 105, { volts: 1.3, isMeterProved: true }),
    ],
    powerEvents: [],
    readings: [
      pin("F1", "1,2", "resistance", null),
      pin("BR1", "L,+", "diode_drop", 0.01),
      pin("Q1", "D,S", "resistance", 0.3),
      pin("R1", "1,2", "resistance", null),
      pin("U1", "VCC,GND", "resistance", 4),
      sampleReading("C1", { value: 1.4 }),
      sampleReading("C2", { value: 9 }),
    ],
  }),
  "replaced and half proved": sampleJob({
    ...board,
    fittedParts: [
      ...fittedParts.map((part) => (part.id === "part-C20" ? { ...part, removedAt: "2026-11-23T10:20:00Z" } : part)),
      samplePart("C20", {
        id: "new-C20",
        origin: "replacement",
        capacitanceFarads: 2200e-6,
        ratedVolts: 16,
        stripeDegrees: 270,
      }),
    ],
    plans: [{ positionId: "at-C20", cataloguePartId: "catalogue-1" }],
    ticks: (["removed", "fitted", "polarity_board_mark"] as const).map((step, n) => ({
      ...{ positionId: "at-C20", step, isDone: true, ...sampleMoment, sequence: 10 + n, at: "2026-11-23T10:21:00Z" },
    })),
    readings: [
      sampleReading("C20", { value: 0.4 }),
      sampleReading("C20", { value: 0.02, fittedPartId: "new-C20" }),
      sampleReading("none", {
        ...{ targetKind: "rail", targetId: "net-5", fittedPartId: null, quantity: "dc_voltage", value: 5.05 },
        ...{ circuitState: null, frequencyHertz: null, isPowered: true, loadAmps: 0 },
      }),
      sampleReading("none", {
        ...{ targetKind: "rail", targetId: "net-5", fittedPartId: null, quantity: "dc_voltage", value: 4.6 },
        ...{ circuitState: null, frequencyHertz: null, isPowered: true, loadAmps: 2 },
      }),
      sampleReading("none", {
        ...{ targetKind: "rail", targetId: "net-5", fittedPartId: null, quantity: "ripple_voltage", value: 0.11 },
        ...{ circuitState: null, frequencyHertz: null, isPowered: true, loadAmps: 2 },
      }),
    ],
    teardownSteps: [
      { id: "s1", number: 1, kind: "screws", count: 4 },
      { id: "s2", number: 2, kind: "earth_screws", count: 1 },
    ],
    teardownReturns: [{ stepId: "s1", countIn: 3, sequence: 20, at: "2026-11-23T10:25:00Z" }],
  }),
};
