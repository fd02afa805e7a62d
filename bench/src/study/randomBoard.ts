import type { Scenario, ScenarioCapacitor } from "@pale-cap/contract";
import { type CapacitorClass, seededRandom } from "@pale-cap/core";
import { truePart } from "../virtualSupply/truePart";

/** What is true of a part, in the terms of the usual repair rule: three times the typical ESR, a fifth of C, leakage. */
export type Truth = "sound" | "worn" | "failed";

export interface StudyBoard {
  readonly scenario: Scenario;
  readonly truths: ReadonlyMap<string, Truth>;
}

/** Microfarads, volts, class and can of parts as boards have them, by net. */
const nets = [
  {
    name: "Bulk",
    section: "bulk",
    count: [1, 1],
    parts: [
      [82, 400, 16, 36, "gp"],
      [120, 400, 18, 40, "gp"],
    ],
    boardOhms: 1.5e6,
  },
  {
    name: "Vcc",
    section: "vcc",
    count: [1, 1],
    parts: [
      [22, 50, 5, 11, "lowz"],
      [47, 50, 6.3, 11, "lowz"],
    ],
    boardOhms: 9e4,
  },
  {
    name: "12 V",
    section: "output",
    count: [2, 4],
    parts: [
      [680, 25, 10, 16, "lowz"],
      [1000, 25, 10, 20, "lowz"],
      [1000, 16, 10, 16, "ultra"],
    ],
    boardOhms: 5600,
  },
  {
    name: "12 V post",
    section: "output-post",
    count: [1, 2],
    parts: [
      [470, 25, 8, 15, "lowz"],
      [330, 25, 8, 12, "lowz"],
    ],
    boardOhms: 8200,
  },
  {
    name: "5 V",
    section: "output",
    count: [2, 3],
    parts: [
      [1000, 10, 10, 16, "lowz"],
      [2200, 10, 10, 25, "lowz"],
    ],
    boardOhms: 1200,
  },
  {
    name: "5 V standby",
    section: "standby",
    count: [1, 2],
    parts: [
      [470, 10, 8, 12, "lowz"],
      [1000, 10, 8, 20, "lowz"],
    ],
    boardOhms: 2500,
  },
] as const;

/** How the parts of such boards are, per part before their bank's own luck: what shops bring in, rough. */
const failedShare = 0.16;
const wornShare = 0.12;
const leakyShare = 0.02;
/** New parts of one kind differ by so much, and a series from its class: standard deviations of the logarithm. */
const partSpread = 0.12;
const seriesSpread = 0.2;

/** A board with parts as chance has it, the same for the same seed. */
export function randomBoard(seed: number): StudyBoard {
  const random = seededRandom(seed);
  const between = (low: number, high: number) => low + (high - low) * random();
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const capacitors: ScenarioCapacitor[] = [];
  for (const net of nets) {
    const count = Math.round(between(net.count[0], net.count[1]));
    const [microfarads, volts, diameter, height, capacitorClass] = pick<
      readonly [number, number, number, number, CapacitorClass]
    >(net.parts);
    // Parts of one bank are of one batch: one that has gone tells of the others.
    const luck = Math.exp(0.9 * normal());
    const series = Math.exp(seriesSpread * normal());
    for (let n = 0; n < count; n++) {
      capacitors.push({
        at: `C${capacitors.length + 1}`,
        net: net.name,
        marking: [microfarads, volts, 105],
        capacitorClass,
        can: [diameter, height, 5],
        place: [10 + 12 * capacitors.length, 20],
        nearbyHeatKelvin: 5,
        ...condition(random, between, normal, luck, series),
      });
    }
  }
  const scenario = scenarioOf(seed, capacitors);
  return { scenario, truths: new Map(capacitors.map((part) => [part.at, truthOf(part)])) };
}

type Condition = Pick<ScenarioCapacitor, "capacitanceRatio" | "esrRatio" | "leakageOhms" | "looks">;

function condition(
  random: () => number,
  between: (low: number, high: number) => number,
  normal: () => number,
  luck: number,
  series: number,
): Condition {
  const own = series * Math.exp(partSpread * normal());
  const fresh = { capacitanceRatio: between(0.86, 1.08), esrRatio: own, leakageOhms: null, looks: null };
  const odds = (share: number) => (share / (1 - share)) * luck;
  const draw = random();
  const failed = odds(failedShare) / (1 + odds(failedShare));
  if (draw < failed) {
    const looks = random() < 0.4 ? "domed top" : null;
    return {
      ...fresh,
      capacitanceRatio: between(0.08, 0.78),
      esrRatio: own * Math.exp(between(Math.log(3.6), Math.log(60))),
      looks,
    };
  }
  if (draw < failed + wornShare)
    return { ...fresh, capacitanceRatio: between(0.82, 0.9), esrRatio: own * between(1.6, 2.4) };
  if (draw < failed + wornShare + leakyShare) return { ...fresh, leakageOhms: between(3, 40) };
  return random() < 0.002 ? { ...fresh, looks: "domed top" } : fresh;
}

/** By the true values at 20 degrees C: what a perfect bench would call it. */
function truthOf(part: ScenarioCapacitor): Truth {
  const esr = truePart(part, 20, 100e3).esrOhms;
  const typical = truePart({ ...part, esrRatio: 1 }, 20, 100e3).esrOhms;
  const isLeaky = part.leakageOhms !== null && part.leakageOhms * (part.marking[0] ?? 1) < 1e6;
  if (esr >= 3 * typical || part.capacitanceRatio <= 0.8 || isLeaky) return "failed";
  return esr >= 2 * typical || part.capacitanceRatio <= 0.85 ? "worn" : "sound";
}

function scenarioOf(seed: number, capacitors: readonly ScenarioCapacitor[]): Scenario {
  return {
    name: `study-${seed}`,
    title: "A board of the study",
    complaint: "none",
    answer: "in the truths beside it",
    seed,
    topology: "flyback",
    board: { widthMillimetres: 200, depthMillimetres: 100, barrierMillimetres: 80 },
    mains: { voltsRms: 230, hertz: 50, sourceOhms: 1.5 },
    switchingHertz: 65e3,
    pfcVolts: null,
    control: {
      net: "Vcc",
      startOhms: 470e3,
      startVolts: 16,
      stopVolts: 9,
      runningVolts: 13.5,
      operatingAmps: 0.006,
      quiescentAmps: 4e-5,
      takeoverSeconds: 0.006,
    },
    dropoutBulkVolts: 95,
    efficiencyRatio: 0.85,
    idleWatts: 1,
    thermal: { ambientCelsius: 22, timeConstantSeconds: 240 },
    nets: nets.map(({ name, section, boardOhms }) => ({
      name,
      section,
      nominalVolts: null,
      fullLoadAmps: null,
      outputOhms: 0,
      idleAmps: 0,
      boardOhms,
      behind: section === "output-post" ? "12 V" : null,
    })),
    capacitors: [...capacitors],
    devices: [
      {
        at: "L1",
        kind: "choke",
        pins: { "1": "12 V", "2": "12 V post" },
        henrys: 4.7e-6,
        ohms: 0.02,
        condition: "good",
        place: [100, 50],
        outline: [8, 8],
      },
    ],
  };
}
