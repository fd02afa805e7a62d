import {
  bulkMiddle,
  type Scenario,
  type ScenarioCapacitor,
  type ScenarioDevice,
  type ScenarioDeviceKind,
  type ScenarioNet,
  type ScenarioRole,
} from "@pale-cap/contract";
import type { CapacitorClass, DeviceKind, Section } from "@pale-cap/core";

/** A supply in order, before anything is wrong with it. */
export interface Base {
  readonly deviceKind: DeviceKind;
  readonly deviceModel: string;
  readonly scenario: Omit<Scenario, "name" | "title" | "complaint" | "seed" | "answer">;
}

type Pair = readonly [number, number];
type Triple = readonly [number, number, number];

/** A capacitor as a row: place, net, what is printed on it, class, can, where it sits, heat beside it. */
const can = (
  at: string,
  net: string,
  marking: Triple,
  capacitorClass: CapacitorClass,
  size: Triple,
  place: Pair,
  nearbyHeatKelvin = 6,
): ScenarioCapacitor => ({
  ...{ at, net, capacitorClass, nearbyHeatKelvin, looks: null, leakageOhms: null },
  ...{ marking: [...marking], can: [...size], place: [...place], capacitanceRatio: 1, esrRatio: 1 },
  fate: { mode: "new", amount: 1, seriesRatio: 1 },
});

const part = (
  at: string,
  kind: ScenarioDeviceKind,
  pins: Readonly<Record<string, string>>,
  place: Pair,
  more: Partial<Pick<ScenarioDevice, "ohms" | "henrys" | "net" | "weak">> & {
    readonly role?: ScenarioRole;
    readonly outline?: Pair;
  } = {},
): ScenarioDevice => {
  const { outline = [10, 6], ohms = null, henrys = null, ...others } = more;
  return { at, kind, pins, place: [...place], outline: [...outline], ohms, henrys, condition: "good", ...others };
};

const net = (
  name: string,
  section: Section,
  nominalVolts: number | null,
  boardOhms: number,
  more: Partial<ScenarioNet> = {},
): ScenarioNet => ({
  ...{ name, section, nominalVolts, boardOhms, fullLoadAmps: null, outputOhms: 0, idleAmps: 0, behind: null },
  ...more,
});

const loop = { crossoverHertz: 3000, integratorHertz: 150 };
/** An output with what it promises. */
const output = (
  name: string,
  volts: number,
  amps: number,
  boardOhms: number,
  section: Section = "output",
  more: Partial<ScenarioNet> = {},
): ScenarioNet =>
  net(name, section, volts, boardOhms, {
    ...{ fullLoadAmps: amps, outputOhms: 0.03, idleAmps: 0.04, currentLimitAmps: 1.55 * amps, loop },
    ...more,
  });

const thermal = (ambientCelsius: number, ats: readonly string[]) => ({
  ambientCelsius,
  timeConstantSeconds: 300,
  masses: ats.map((at) => ({ at, kelvinAtFullLoad: 44, timeConstantSeconds: 200 })),
});

const europe = { voltsRms: 230, hertz: 50, sourceOhms: 1.5 };
const flybackControl = {
  ...{ net: "Vcc", startOhms: 470_000, startVolts: 16, stopVolts: 9, runningVolts: 13.5 },
  ...{ operatingAmps: 0.006, quiescentAmps: 4e-5, takeoverSeconds: 0.006 },
};
const chipControl = {
  ...{ net: "Vcc", startOhms: 330_000, startVolts: 15, stopVolts: 9.5, runningVolts: 14 },
  ...{ operatingAmps: 0.012, quiescentAmps: 6e-5, takeoverSeconds: 0.005 },
};

/** Fuse, varistor, thermistor and bridge, as most mains inputs have them. */
const input = (bulk: string, ohms: number) => [
  part("F1", "fuse", { "1": "line", "2": "line fused" }, [12, 92], { outline: [20, 6] }),
  part("RV1", "varistor", { "1": "line fused", "2": "neutral" }, [30, 92], { outline: [10, 4] }),
  part("RT1", "ntc", { "1": "line fused", "2": "line ntc" }, [12, 78], { ohms, outline: [12, 5] }),
  part("BR1", "bridge", { L: "line ntc", N: "neutral", "+": bulk, "-": "hot ground" }, [12, 62], { outline: [15, 10] }),
];

const monitor: Base = {
  ...{ deviceKind: "monitor", deviceModel: "Linnea 22" },
  scenario: {
    ...{ topology: "flyback", builtAs: "flyback", mains: europe, switchingHertz: 65e3, pfcVolts: null },
    ...{ control: flybackControl, dropoutBulkVolts: 95, efficiencyRatio: 0.84, idleWatts: 1.1 },
    board: { widthMillimetres: 150, depthMillimetres: 105, barrierMillimetres: 80 },
    thermal: thermal(24, ["Q1", "T1", "D8", "D9", "RT1"]),
    nets: [
      net("Bulk", "bulk", 325, 1.5e6),
      net("Vcc", "vcc", 13.5, 90e3),
      output("14 V", 14, 2.2, 5600),
      net("14 V after L2", "output-post", 14, 8200, { behind: "14 V" }),
      output("5 V", 5, 1.8, 1200, "output", { idleAmps: 0.05 }),
      net("Feedback", "feedback", null, 47e3),
    ],
    capacitors: [
      can("C3", "Bulk", [82, 400, 105], "gp", [16, 36, 7.5], [26, 40]),
      can("C7", "Vcc", [22, 50, 105], "lowz", [5, 11, 2], [52, 84]),
      can("C11", "14 V", [680, 25, 105], "lowz", [10, 16, 5], [94, 28], 12),
      can("C12", "14 V", [680, 25, 105], "lowz", [10, 16, 5], [108, 28]),
      can("C13", "14 V after L2", [470, 25, 105], "lowz", [8, 15, 3.5], [132, 28]),
      can("C16", "5 V", [1000, 10, 105], "lowz", [10, 16, 5], [94, 62], 12),
      can("C17", "5 V", [1000, 10, 105], "lowz", [10, 16, 5], [108, 62]),
      can("C18", "5 V", [470, 10, 105], "lowz", [8, 12, 3.5], [130, 62]),
      can("C21", "Feedback", [1, 50, 105], "gp", [5, 11, 2], [90, 94]),
    ],
    devices: [
      ...input("Bulk", 8),
      part("R4", "resistor", { "1": "Bulk", "2": "Vcc" }, [40, 66], { ohms: 470e3, role: "start", net: "Vcc" }),
      part("R7", "resistor", { "1": "drive", "2": "gate" }, [44, 78], { ohms: 22, role: "gate", net: "Vcc" }),
      part("Q1", "transistor", { D: "drain", S: "shunt", G: "gate" }, [54, 34], { ohms: 10e3, outline: [16, 6] }),
      part("R9", "resistor", { "1": "shunt", "2": "hot ground" }, [56, 50], { ohms: 0.47 }),
      part("U1", "ic", { VCC: "Vcc", GND: "hot ground" }, [64, 70], { ohms: 68e3 }),
      part("D8", "schottky", { A: "secondary 14", K: "14 V" }, [92, 12], { net: "14 V", outline: [16, 5] }),
      part("D9", "schottky", { A: "secondary 5", K: "5 V" }, [92, 46], { net: "5 V", outline: [16, 5] }),
      part("L2", "choke", { "1": "14 V", "2": "14 V after L2" }, [120, 42], {
        ohms: 0.018,
        henrys: 4.7e-6,
        net: "14 V",
      }),
      part("U2", "optocoupler", { A: "lamp", K: "reference", C: "Vcc", E: "loop" }, [78, 90], { net: "Feedback" }),
      part("CN2", "connector", { "1": "5 V", "2": "5 V out" }, [144, 82], { net: "5 V" }),
    ],
  },
};

const television: Base = {
  ...{ deviceKind: "television", deviceModel: "Halden 40" },
  scenario: {
    ...{ topology: "resonant", builtAs: "pfc_resonant_with_standby", mains: { ...europe, sourceOhms: 1 } },
    ...{ switchingHertz: 90e3, pfcVolts: 388, control: chipControl },
    ...{ dropoutBulkVolts: 250, efficiencyRatio: 0.9, idleWatts: 2.4 },
    board: { widthMillimetres: 230, depthMillimetres: 150, barrierMillimetres: 128 },
    thermal: thermal(25, ["Q1", "Q2", "Q3", "T1", "D6", "D7", "RT1"]),
    nets: [
      net("PFC bulk", "pfc", 388, 2e6),
      net("Vcc", "vcc", 14, 100e3),
      output("24 V", 24, 4, 6800, "output", { outputOhms: 0.02 }),
      net("24 V after L5", "output-post", 24, 10e3, { behind: "24 V" }),
      output("12 V", 12, 3, 2700, "output", { outputOhms: 0.02 }),
      output("5 V standby", 5, 1, 1500, "standby", { outputOhms: 0.04 }),
    ],
    capacitors: [
      can("C1", "PFC bulk", [100, 450, 105], "gp", [18, 40, 7.5], [44, 60]),
      can("C2", "PFC bulk", [100, 450, 105], "gp", [18, 40, 7.5], [66, 60]),
      can("C10", "Vcc", [47, 50, 105], "lowz", [6.3, 11, 2.5], [98, 122]),
      can("C21", "24 V", [1000, 35, 105], "lowz", [12.5, 25, 5], [148, 36], 14),
      can("C22", "24 V", [1000, 35, 105], "lowz", [12.5, 25, 5], [166, 36]),
      can("C23", "24 V after L5", [470, 35, 105], "lowz", [10, 20, 5], [206, 36], 20),
      can("C31", "12 V", [1500, 16, 105], "lowz", [10, 25, 5], [148, 78]),
      can("C32", "12 V", [1500, 16, 105], "lowz", [10, 25, 5], [164, 78]),
      can("C41", "5 V standby", [1000, 10, 105], "lowz", [8, 20, 3.5], [148, 120], 16),
      can("C42", "5 V standby", [470, 10, 105], "lowz", [8, 12, 3.5], [164, 120]),
    ],
    devices: [
      ...input("boost in", 5),
      part("L1", "choke", { "1": "boost in", "2": "boost switch" }, [30, 24], {
        ohms: 0.15,
        henrys: 2.5e-4,
        outline: [30, 30],
      }),
      part("D1", "diode", { A: "boost switch", K: "PFC bulk" }, [60, 20], { role: "boost", net: "PFC bulk" }),
      part("Q1", "transistor", { D: "boost switch", S: "boost shunt", G: "boost gate" }, [78, 20], {
        ...{ ohms: 10e3, role: "boost", net: "PFC bulk", outline: [16, 6] },
      }),
      part("R1", "resistor", { "1": "boost shunt", "2": "hot ground" }, [78, 34], { ohms: 0.1, role: "boost" }),
      part("U3", "ic", { VCC: "boost Vcc", GND: "hot ground" }, [74, 122], { ohms: 60e3, role: "boost" }),
      part("Q2", "transistor", { D: "PFC bulk", S: "half bridge", G: "high gate" }, [98, 44], {
        ohms: 10e3,
        outline: [16, 6],
      }),
      part("Q3", "transistor", { D: "half bridge", S: "main shunt", G: "low gate" }, [98, 58], {
        ohms: 10e3,
        outline: [16, 6],
      }),
      part("R2", "resistor", { "1": "main shunt", "2": "hot ground" }, [98, 72], { ohms: 0.15 }),
      part("U1", "ic", { VCC: "Vcc", GND: "hot ground" }, [98, 100], { ohms: 52e3 }),
      part("U5", "ic", { VCC: "PFC bulk", GND: "hot ground" }, [116, 128], {
        ohms: 900e3,
        role: "standby",
        net: "5 V standby",
      }),
      part("Q6", "transistor", { D: "secondary 24", S: "24 V", G: "rect gate" }, [140, 14], {
        ...{ ohms: 10e3, role: "synchronous", net: "24 V", outline: [16, 6] },
      }),
      part("D7", "schottky", { A: "secondary 12", K: "12 V" }, [140, 58], { net: "12 V", outline: [16, 6] }),
      part("D8", "schottky", { A: "secondary 5", K: "5 V standby" }, [136, 104], { net: "5 V standby" }),
      part("L5", "choke", { "1": "24 V", "2": "24 V after L5" }, [188, 48], { ohms: 0.012, henrys: 6e-6, net: "24 V" }),
      part("U2", "optocoupler", { A: "lamp", K: "reference", C: "Vcc", E: "loop" }, [122, 136], { net: "24 V" }),
      part("U6", "optocoupler", { A: "lamp 5", K: "reference 5", C: "standby loop", E: "hot ground" }, [132, 142], {
        ...{ role: "standby", net: "5 V standby" },
      }),
    ],
  },
};

const adapter: Base = {
  ...{ deviceKind: "adapter", deviceModel: "Ostra 65" },
  scenario: {
    ...{ topology: "flyback", builtAs: "flyback", mains: { ...europe, sourceOhms: 2 }, switchingHertz: 100e3 },
    ...{ pfcVolts: null, dropoutBulkVolts: 85, efficiencyRatio: 0.86, idleWatts: 0.35 },
    control: {
      ...{ net: "Vcc", startOhms: 680e3, startVolts: 17, stopVolts: 9, runningVolts: 14 },
      ...{ operatingAmps: 0.004, quiescentAmps: 2e-5, takeoverSeconds: 0.008 },
    },
    board: { widthMillimetres: 105, depthMillimetres: 60, barrierMillimetres: 58 },
    thermal: thermal(24, ["Q1", "T1", "D5"]),
    nets: [
      net("Bulk", "bulk", 325, 2.2e6),
      net("Vcc", "vcc", 14, 120e3),
      output("19 V", 19, 3.2, 9100, "output", { idleAmps: 0.01, outputOhms: 0.035 }),
    ],
    capacitors: [
      can("C1", "Bulk", [68, 400, 105], "gp", [16, 25, 7.5], [26, 28]),
      can("C4", "Vcc", [10, 50, 105], "lowz", [5, 11, 2], [48, 48]),
      can("C9", "19 V", [680, 25, 105], "lowz", [10, 16, 5], [74, 16]),
      can("C10", "19 V", [680, 25, 105], "lowz", [10, 16, 5], [86, 16]),
    ],
    devices: [
      part("F1", "fuse", { "1": "line", "2": "line fused" }, [8, 50], { outline: [12, 5] }),
      part("BR1", "bridge", { L: "line fused", N: "neutral", "+": "Bulk", "-": "hot ground" }, [8, 32]),
      part("R3", "resistor", { "1": "Bulk", "2": "Vcc" }, [38, 52], {
        ohms: 680e3,
        role: "start",
        net: "Vcc",
        outline: [6, 3],
      }),
      part("Q1", "transistor", { D: "drain", S: "shunt", G: "gate" }, [44, 12], { ohms: 10e3 }),
      part("R6", "resistor", { "1": "shunt", "2": "hot ground" }, [44, 24], { ohms: 0.33, outline: [6, 4] }),
      part("U1", "ic", { VCC: "Vcc", GND: "hot ground" }, [40, 40], { ohms: 80e3, outline: [8, 6] }),
      part("D5", "schottky", { A: "secondary 19", K: "19 V" }, [70, 34], { net: "19 V", outline: [14, 5] }),
      part("U2", "optocoupler", { A: "lamp", K: "reference", C: "Vcc", E: "loop" }, [56, 50], {
        net: "19 V",
        outline: [6, 5],
      }),
      part("CN1", "connector", { "1": "19 V", "2": "19 V plug" }, [98, 40], { net: "19 V" }),
    ],
  },
};

const computer: Base = {
  ...{ deviceKind: "computer-supply", deviceModel: "Korvell 300" },
  scenario: {
    ...{ topology: "half_bridge", builtAs: "forward_or_half_bridge", isDoubler: true },
    ...{ mains: { voltsRms: 115, hertz: 60, sourceOhms: 0.8 }, switchingHertz: 45e3, pfcVolts: null },
    ...{ dropoutBulkVolts: 180, efficiencyRatio: 0.78, idleWatts: 4 },
    control: { ...chipControl, startOhms: 220e3 },
    board: { widthMillimetres: 140, depthMillimetres: 110, barrierMillimetres: 74 },
    thermal: thermal(26, ["Q1", "Q2", "D5", "D12", "RT1"]),
    nets: [
      net("Bulk", "bulk", 320, 300e3),
      net("Vcc", "vcc", 14, 60e3),
      output("12 V", 12, 6, 900, "output", { outputOhms: 0.012, idleAmps: 0.1 }),
      output("5 V", 5, 12, 220, "output", { outputOhms: 0.006, idleAmps: 0.2 }),
      net("5 V after L4", "output-post", 5, 800, { behind: "5 V" }),
      net("Feedback", "feedback", null, 30e3),
    ],
    capacitors: [
      can("C5", "Bulk", [330, 200, 105], "gp", [22, 35, 10], [26, 36]),
      can("C6", "Bulk", [330, 200, 105], "gp", [22, 35, 10], [26, 62]),
      can("C8", "Vcc", [47, 50, 105], "lowz", [6.3, 11, 2.5], [60, 94]),
      can("C31", "12 V", [1000, 16, 105], "lowz", [10, 20, 5], [92, 24], 14),
      can("C32", "12 V", [1000, 16, 105], "lowz", [10, 20, 5], [106, 24]),
      can("C35", "5 V", [2200, 10, 105], "lowz", [10, 25, 5], [92, 56], 18),
      can("C36", "5 V", [2200, 10, 105], "lowz", [10, 25, 5], [106, 56]),
      can("C37", "5 V after L4", [1000, 10, 105], "lowz", [8, 16, 3.5], [128, 56]),
      can("C40", "Feedback", [10, 50, 105], "gp", [5, 11, 2], [84, 96]),
    ],
    devices: [
      ...input("Bulk", 5),
      part("R5", "resistor", { "1": "Bulk", "2": bulkMiddle }, [42, 36], { ohms: 150e3, role: "bleeder", net: "Bulk" }),
      part("R6", "resistor", { "1": bulkMiddle, "2": "hot ground" }, [42, 62], {
        ohms: 150e3,
        role: "bleeder",
        net: "Bulk",
      }),
      part("Q1", "transistor", { D: "Bulk", S: "half bridge", G: "high gate" }, [56, 26], {
        ohms: 4700,
        outline: [14, 5],
      }),
      part("Q2", "transistor", { D: "half bridge", S: "shunt", G: "low gate" }, [56, 40], {
        ohms: 4700,
        outline: [14, 5],
      }),
      part("R9", "resistor", { "1": "shunt", "2": "hot ground" }, [58, 54], { ohms: 0.22 }),
      part("R11", "resistor", { "1": "drive", "2": "low gate" }, [58, 66], { ohms: 33, role: "gate", net: "Vcc" }),
      part("U1", "ic", { VCC: "Vcc", GND: "hot ground" }, [60, 80], { ohms: 47e3 }),
      part("D12", "schottky", { A: "secondary 12", K: "12 V" }, [88, 10], { net: "12 V", outline: [16, 5] }),
      part("D5", "schottky", { A: "secondary 5", K: "5 V" }, [88, 40], { net: "5 V", outline: [16, 5] }),
      part("L4", "choke", { "1": "5 V", "2": "5 V after L4" }, [118, 70], { ohms: 0.006, henrys: 2.2e-6, net: "5 V" }),
      part("U2", "optocoupler", { A: "lamp", K: "reference", C: "Vcc", E: "loop" }, [74, 96], { net: "Feedback" }),
      part("CN1", "connector", { "1": "12 V", "2": "12 V out" }, [134, 92], { net: "12 V" }),
    ],
  },
};

const console: Base = {
  ...{ deviceKind: "console", deviceModel: "Tindra Play" },
  scenario: {
    ...monitor.scenario,
    ...{ builtAs: "flyback_with_standby", switchingHertz: 70e3 },
    thermal: thermal(25, ["Q1", "T1", "D8", "RT1"]),
    nets: [
      net("Bulk", "bulk", 325, 1.2e6),
      net("Vcc", "vcc", 13.5, 90e3),
      output("12 V", 12, 7, 1800, "output", { outputOhms: 0.015, idleAmps: 0.06 }),
      net("12 V after L2", "output-post", 12, 4700, { behind: "12 V" }),
      output("5 V standby", 5, 1.2, 1500, "standby", { outputOhms: 0.04 }),
      net("Feedback", "feedback", null, 47e3),
    ],
    capacitors: [
      can("C3", "Bulk", [150, 400, 105], "gp", [22, 35, 10], [28, 40]),
      can("C7", "Vcc", [22, 50, 105], "lowz", [5, 11, 2], [52, 84]),
      can("C11", "12 V", [1500, 16, 105], "lowz", [10, 25, 5], [94, 26], 16),
      can("C12", "12 V", [1500, 16, 105], "lowz", [10, 25, 5], [108, 26]),
      can("C13", "12 V after L2", [680, 16, 105], "lowz", [8, 20, 3.5], [132, 26]),
      can("C16", "5 V standby", [1000, 10, 105], "lowz", [8, 20, 3.5], [94, 62], 18),
      can("C17", "5 V standby", [470, 10, 105], "lowz", [8, 12, 3.5], [108, 62]),
      can("C21", "Feedback", [1, 50, 105], "gp", [5, 11, 2], [90, 94]),
    ],
    devices: [
      ...monitor.scenario.devices.filter((one) => !["D8", "D9", "L2", "CN2", "U2"].includes(one.at)),
      part("U5", "ic", { VCC: "Bulk", GND: "hot ground" }, [64, 86], {
        ohms: 800e3,
        role: "standby",
        net: "5 V standby",
      }),
      part("D8", "schottky", { A: "secondary 12", K: "12 V" }, [92, 10], { net: "12 V", outline: [16, 5] }),
      part("D9", "schottky", { A: "secondary 5", K: "5 V standby" }, [92, 46], { net: "5 V standby" }),
      part("L2", "choke", { "1": "12 V", "2": "12 V after L2" }, [120, 42], {
        ohms: 0.01,
        henrys: 3.3e-6,
        net: "12 V",
      }),
      part("U2", "optocoupler", { A: "lamp", K: "reference", C: "Vcc", E: "loop" }, [78, 90], { net: "Feedback" }),
      part("U6", "optocoupler", { A: "lamp 5", K: "reference 5", C: "standby loop", E: "hot ground" }, [78, 98], {
        ...{ role: "standby", net: "5 V standby" },
      }),
    ],
  },
};

const instrument: Base = {
  ...{ deviceKind: "instrument", deviceModel: "Fjellby C4" },
  scenario: {
    ...{ topology: "forward", builtAs: "forward_or_half_bridge", mains: europe, switchingHertz: 80e3, pfcVolts: null },
    ...{ control: chipControl, dropoutBulkVolts: 190, efficiencyRatio: 0.82, idleWatts: 2 },
    board: { widthMillimetres: 160, depthMillimetres: 105, barrierMillimetres: 82 },
    thermal: thermal(23, ["Q1", "D5", "D6", "RT1"]),
    nets: [
      net("Bulk", "bulk", 325, 1e6),
      net("Vcc", "vcc", 14, 80e3),
      output("24 V", 24, 3, 5600),
      net("24 V after L3", "output-post", 24, 9100, { behind: "24 V" }),
      output("5 V", 5, 3, 1000),
    ],
    capacitors: [
      can("C1", "Bulk", [150, 400, 105], "gp", [22, 35, 10], [28, 40]),
      can("C2", "Vcc", [47, 50, 105], "lowz", [6.3, 11, 2.5], [56, 86]),
      can("C21", "24 V", [1000, 35, 105], "lowz", [12.5, 25, 5], [98, 28], 12),
      can("C22", "24 V", [1000, 35, 105], "lowz", [12.5, 25, 5], [114, 28]),
      can("C23", "24 V after L3", [470, 35, 105], "lowz", [10, 20, 5], [142, 28]),
      can("C31", "5 V", [1500, 10, 105], "lowz", [10, 20, 5], [98, 68]),
      can("C32", "5 V", [1500, 10, 105], "lowz", [10, 20, 5], [112, 68]),
    ],
    devices: [
      ...input("Bulk", 8),
      part("R4", "resistor", { "1": "Bulk", "2": "Vcc" }, [44, 70], { ohms: 330e3, role: "start", net: "Vcc" }),
      part("R7", "resistor", { "1": "drive", "2": "gate" }, [62, 60], { ohms: 15, role: "gate", net: "Vcc" }),
      part("Q1", "transistor", { D: "drain", S: "shunt", G: "gate" }, [60, 30], { ohms: 10e3, outline: [16, 6] }),
      part("R9", "resistor", { "1": "shunt", "2": "hot ground" }, [62, 46], { ohms: 0.33 }),
      part("U1", "ic", { VCC: "Vcc", GND: "hot ground" }, [66, 76], { ohms: 55e3 }),
      part("D5", "schottky", { A: "secondary 24", K: "24 V" }, [94, 10], { net: "24 V", outline: [16, 5] }),
      part("D6", "schottky", { A: "secondary 5", K: "5 V" }, [94, 50], { net: "5 V", outline: [16, 5] }),
      part("L3", "choke", { "1": "24 V", "2": "24 V after L3" }, [128, 44], { ohms: 0.02, henrys: 8e-6, net: "24 V" }),
      part("U2", "optocoupler", { A: "lamp", K: "reference", C: "Vcc", E: "loop" }, [82, 94], { net: "5 V" }),
      part("CN3", "connector", { "1": "24 V", "2": "24 V out" }, [152, 80], { net: "24 V" }),
    ],
  },
};

const appliance: Base = {
  ...{ deviceKind: "small-appliance", deviceModel: "Marvet Board 5" },
  scenario: {
    ...{ topology: "buck", builtAs: "buck_board", mains: { voltsRms: 12, hertz: 50, sourceOhms: 0.2 } },
    ...{ switchingHertz: 300e3, pfcVolts: null, dropoutBulkVolts: 6, efficiencyRatio: 0.88, idleWatts: 0.3 },
    control: { ...flybackControl, net: "12 V in" },
    board: { widthMillimetres: 90, depthMillimetres: 60, barrierMillimetres: 2 },
    thermal: thermal(25, ["U3", "U4"]),
    nets: [
      net("12 V in", "other", 12, 5600),
      output("5 V", 5, 2, 900, "board-regulator", { outputOhms: 0.02 }),
      output("3.3 V", 3.3, 1.5, 400, "board-regulator", { outputOhms: 0.02, idleAmps: 0.1 }),
    ],
    capacitors: [
      can("C1", "12 V in", [220, 25, 105], "lowz", [8, 12, 3.5], [16, 28]),
      can("C5", "5 V", [470, 10, 105], "lowz", [8, 12, 3.5], [52, 18], 10),
      can("C6", "5 V", [470, 10, 105], "lowz", [8, 12, 3.5], [64, 18]),
      can("C8", "3.3 V", [470, 6.3, 105], "ultra", [6.3, 12, 2.5], [52, 44], 10),
      can("C9", "3.3 V", [470, 6.3, 105], "ultra", [6.3, 12, 2.5], [64, 44]),
    ],
    devices: [
      part("CN1", "connector", { "1": "plug", "2": "12 V in" }, [6, 44], { net: "12 V in", outline: [8, 10] }),
      part("F1", "fuse", { "1": "plug", "2": "12 V in" }, [8, 12], { net: "12 V in" }),
      part("U3", "regulator", { VCC: "12 V in", GND: "cold ground", OUT: "5 V" }, [36, 18], {
        ohms: 20e3,
        role: "regulator",
        net: "5 V",
      }),
      part("U4", "regulator", { VCC: "12 V in", GND: "cold ground", OUT: "3.3 V" }, [36, 44], {
        ohms: 20e3,
        role: "regulator",
        net: "3.3 V",
      }),
      part("C15", "film", { "1": "5 V", "2": "cold ground" }, [76, 18], { net: "5 V", outline: [4, 3] }),
      part("C18", "film", { "1": "3.3 V", "2": "cold ground" }, [76, 44], { net: "3.3 V", outline: [4, 3] }),
    ],
  },
};

export const bases = { monitor, television, adapter, computer, console, instrument, appliance } as const;
export type BaseName = keyof typeof bases;
