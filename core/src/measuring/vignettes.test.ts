import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading, sampleRules } from "../../testing/sampleJob";
import type { BoardNet, BoardPosition, FittedPart, PartKind } from "../board/board";
import type { DeviceKind } from "../facts/deviceKinds";
import type { Topology } from "../facts/deviceProfiles";
import type { IntakeFacts } from "../facts/jobFacts";
import { explainJob } from "../faults/explainJob";
import { judgeBoard } from "../judgement/judgeBoard";
import type { Reading } from "../readings/reading";
import { nextTargets } from "./nextTargets";

/**
 * Repairs as benches tell them, in stages: what must be thought of first, what is ruled out, and what is worth reading next. Told
 * from the trade's own order of work and cascades; the ranks are what a colleague would accept.
 */
interface Stage {
  readonly read?: readonly Reading[];
  /** What began it: one of these leads, or is at least among so many. */
  readonly cause: readonly string[];
  readonly within?: number;
  /** Below one in ten, or the evidence was not heard. */
  readonly out?: readonly string[];
  /** Designators of which one is among the first three proposals. */
  readonly next?: readonly string[];
}
interface Vignette {
  readonly board: Board;
  readonly device?: { readonly kind?: DeviceKind; readonly topology?: Topology; readonly ageYears?: number };
  readonly symptoms: readonly string[];
  readonly intake?: IntakeFacts;
  readonly isDrained?: boolean;
  readonly stages: readonly Stage[];
}
interface Board {
  readonly kind: DeviceKind;
  readonly topology: Topology;
  readonly nets: readonly BoardNet[];
  readonly positions: readonly BoardPosition[];
  readonly parts: readonly FittedPart[];
}

const rules = { ...sampleRules, judgement: { ...sampleRules.judgement, failedFromRatio: 0.5 } };
const nets = {
  bulk: sampleNet({ id: "bulk", name: "Bulk", section: "bulk", nominalVolts: null, fullLoadAmps: null }),
  pfc: sampleNet({ id: "pfc", name: "PFC", section: "pfc", nominalVolts: 390, fullLoadAmps: null }),
  vcc: sampleNet({ id: "vcc", name: "Vcc", section: "vcc", nominalVolts: null, fullLoadAmps: null }),
  fb: sampleNet({ id: "fb", name: "Feedback", section: "feedback", nominalVolts: null, fullLoadAmps: null }),
  v12: sampleNet({ id: "v12", name: "12 V", section: "output", nominalVolts: 12, fullLoadAmps: 4 }),
  v5: sampleNet({ id: "v5", name: "5 V", section: "output", nominalVolts: 5, fullLoadAmps: 2 }),
  sb: sampleNet({ id: "sb", name: "5 V standby", section: "standby", nominalVolts: 5, fullLoadAmps: 1 }),
  reg: sampleNet({ id: "reg", name: "3.3 V", section: "board-regulator", nominalVolts: 3.3, fullLoadAmps: 3 }),
} as const;
const big = {
  capacitanceFarads: 100e-6,
  ratedVolts: 400,
  capacitorClass: "gp",
  diameterMetres: 0.018,
  heightMetres: 0.036,
} as const;
const small = { capacitanceFarads: 47e-6, ratedVolts: 50, diameterMetres: 0.0063, heightMetres: 0.011 } as const;

type Place = readonly [designator: string, net: keyof typeof nets | null, kind?: PartKind, more?: object];
function board(kind: DeviceKind, topology: Topology, places: readonly Place[]): Board {
  const used = new Set(places.map(([, net]) => net));
  return {
    ...{ kind, topology },
    nets: (Object.keys(nets) as (keyof typeof nets)[]).filter((one) => used.has(one)).map((one) => nets[one]),
    positions: places.map(([designator, netId, part = "electrolytic", more = {}]) =>
      samplePosition(designator, { netId, kind: part, ...(part === "resistor" && more) }),
    ),
    parts: places.flatMap(([designator, , part = "electrolytic", more = {}]) =>
      part === "electrolytic" ? [samplePart(designator, more)] : [],
    ),
  };
}
const flyback = board("monitor", "flyback", [
  ["F1", null, "fuse"],
  ["RT1", null, "ntc"],
  ["BR1", null, "bridge"],
  ["C1", "bulk", "electrolytic", big],
  ["Q1", "bulk", "transistor"],
  ["R1", null, "resistor", { markedOhms: 0.33 }],
  ["U1", "vcc", "ic"],
  ["C2", "vcc", "electrolytic", small],
  ["OK1", "fb", "optocoupler"],
  ["C3", "fb", "electrolytic", small],
  ["D1", "v12", "diode"],
  ["C11", "v12"],
  ["C12", "v12"],
  ["D2", "v5", "diode"],
  ["C21", "v5"],
]);
const television = board("television", "pfc_resonant_with_standby", [
  ["F1", null, "fuse"],
  ["RV1", null, "varistor"],
  ["BR1", null, "bridge"],
  ["Q1", "pfc", "transistor"],
  ["D1", "pfc", "diode"],
  ["R1", "pfc", "resistor", { markedOhms: 0.1 }],
  ["C1", "pfc", "electrolytic", big],
  ["Q2", null, "transistor"],
  ["Q3", null, "transistor"],
  ["U1", "vcc", "ic"],
  ["C2", "vcc", "electrolytic", small],
  ["U2", "sb", "ic"],
  ["C31", "sb"],
  ["D11", "v12", "diode"],
  ["C11", "v12"],
  ["C12", "v12"],
]);
const adapter = board("adapter", "flyback", [
  ["F1", null, "fuse"],
  ["BR1", null, "bridge"],
  ["C1", "bulk", "electrolytic", big],
  ["Q1", "bulk", "transistor"],
  ["U1", "vcc", "ic"],
  ["C2", "vcc", "electrolytic", small],
  ["D1", "v12", "diode"],
  ["C11", "v12"],
  ["C12", "v12"],
]);
const host = board("other", "buck_board", [
  ["U1", "reg", "ic"],
  ["C1", "reg"],
  ["C2", "reg"],
  ["C11", "v12"],
  ["C12", "v12"],
  ["C21", "v5"],
]);

const cold = { fittedPartId: null, circuitState: "in_circuit", frequencyHertz: null } as const;
const esr = (at: string, value: number, circuitState: Reading["circuitState"] = "lead_lifted") =>
  sampleReading(at, { value, circuitState, temperatureCelsius: 20 });
const farads = (at: string, value: number) =>
  sampleReading(at, { quantity: "capacitance", value, frequencyHertz: 120, temperatureCelsius: 20 });
const ohms = (at: string, terminals: string | null, value: number | null, more: Partial<Reading> = {}) =>
  sampleReading(at, {
    ...{ ...cold, quantity: "resistance", terminals, value, coarseCode: value === null ? "over_range" : null },
    ...more,
  });
const drop = (at: string, terminals: string, value: number | null) =>
  sampleReading(at, {
    ...{ ...cold, quantity: "diode_drop", terminals, value, coarseCode: value === null ? "over_range" : null },
  });
const rail = (netId: string, value: number, loadAmps = 0) =>
  sampleReading("none", {
    ...{ targetKind: "rail", targetId: netId, fittedPartId: null, quantity: "dc_voltage", value, loadAmps },
    ...{ isPowered: true, circuitState: null, frequencyHertz: null },
  });
const railOhms = (netId: string, value: number) =>
  sampleReading("none", {
    ...{ targetKind: "rail", targetId: netId, fittedPartId: null, quantity: "resistance", value },
    ...{ circuitState: null, frequencyHertz: null },
  });
const bridgeGood = ["L,+", "N,+", "-,L", "-,N"].map((pins) => drop("BR1", pins, 0.52));
const goodOutputs = ["C11", "C12", "C21"].flatMap((at) => [esr(at, 0.033), farads(at, 980e-6)]);
const outputs = "output_capacitors_dried";
const shorts = ["switch_shorted", "bridge_shorted", "bulk_shorted", "varistor_shorted"];
/** What would have stopped a unit that runs. */
const killers = ["fuse_open_alone", "lead_or_inlet_open", "bridge_shorted", "switch_shorted", "bulk_shorted"];

const vignettes: Readonly<Record<string, Vignette>> = {
  "a monitor that starts after many tries": {
    ...{ board: flyback, device: { ageYears: 9 }, symptoms: ["repeated_attempts", "worse_over_months"] },
    stages: [
      { cause: [outputs, "control_capacitor_dried"], next: ["C11", "C2", "C21", "C12"] },
      { read: [esr("C11", 0.9), farads("C11", 320e-6)], cause: [outputs], out: killers },
    ],
  },
  "dried outputs that make a unit dead": {
    ...{ board: flyback, symptoms: ["dead"] },
    stages: [
      {
        read: [esr("C11", 14), farads("C11", 20e-6), esr("C12", 25), farads("C12", 15e-6)],
        cause: [outputs],
        out: ["lead_or_inlet_open", "rectifier_open"],
      },
    ],
  },
  "a whine, and the outputs read high": {
    ...{ board: flyback, symptoms: ["whine", "no_picture"] },
    stages: [{ read: [esr("C21", 0.8), farads("C21", 400e-6)], cause: [outputs], out: killers }],
  },
  "an indicator that stands, and good outputs": {
    ...{ board: flyback, symptoms: ["no_picture"] },
    stages: [
      { cause: [outputs, "load_faulty"], out: killers },
      {
        read: [...goodOutputs, rail("v12", 12.1), rail("v5", 5.05)],
        cause: ["load_faulty"],
        out: [outputs, ...killers],
      },
    ],
  },
  "a unit that runs well": {
    ...{ board: flyback, symptoms: ["collapses_under_load"] },
    stages: [
      {
        read: [rail("v12", 12.18), rail("v12", 12.02, 4)],
        cause: [outputs, "bulk_dried", "load_faulty"],
        out: killers,
      },
    ],
  },
  "hum and a bulk that lost its C": {
    ...{ board: flyback, symptoms: ["hum", "ripple_mains"] },
    stages: [
      { cause: ["bulk_dried", "bulk_open"], out: killers, next: ["C1"] },
      {
        read: [farads("C1", 31e-6), esr("C1", 4)],
        cause: ["bulk_dried"],
        out: ["bulk_shorted", "bulk_open", ...killers],
      },
    ],
  },
  "a bulk of half a nanofarad": {
    ...{ board: flyback, symptoms: ["ripple_mains", "fails_under_load"] },
    stages: [{ read: [farads("C1", 0.4e-9), esr("C1", 28)], cause: ["bulk_open"], out: ["bulk_shorted", ...killers] }],
  },
  "a shorted bulk behind a blown fuse": {
    ...{ board: flyback, symptoms: ["dead", "fuse_blown"] },
    stages: [
      { cause: shorts, out: ["control_capacitor_dried"], next: ["Q1", "BR1", "C1"] },
      {
        read: [ohms("F1", "1,2", null), ohms("C1", null, 0.3, { circuitState: "out", fittedPartId: "part-C1" })],
        ...{ cause: ["bulk_shorted"], out: ["bulk_dried"] },
      },
    ],
  },
  "a fuse that is open, a transistor that is shorted": {
    ...{ board: flyback, symptoms: ["dead", "fuse_blown", "bang"] },
    stages: [
      { cause: ["switch_shorted"], next: ["Q1", "BR1", "C1"] },
      {
        read: [ohms("F1", "1,2", null), ohms("Q1", "D,S", 0.4), ...bridgeGood],
        ...{ cause: ["switch_shorted", outputs], within: 2, out: ["bridge_shorted"], next: ["R1", "U1"] },
      },
    ],
  },
  "a transistor whose gate is punched": {
    ...{ board: flyback, symptoms: ["dead"] },
    stages: [
      {
        read: [ohms("Q1", "G,S", 60, { circuitState: "out" }), ohms("Q1", "D,S", 200e3, { circuitState: "out" })],
        cause: ["switch_shorted"],
      },
    ],
  },
  "a transistor of two hundred ohms off the board": {
    ...{ board: flyback, symptoms: ["dead"] },
    stages: [{ read: [ohms("Q1", "D,S", 200, { circuitState: "out" })], cause: ["switch_shorted"] }],
  },
  "a shunt that opened and saved the fuse": {
    ...{ board: flyback, symptoms: ["dead"] },
    stages: [
      {
        read: [ohms("F1", "1,2", 0.2), ohms("Q1", "D,S", 0.3), ohms("R1", "1,2", null)],
        ...{
          cause: ["switch_shorted", outputs],
          within: 2,
          out: ["fuse_open_alone", "lead_or_inlet_open"],
          next: ["U1", "BR1"],
        },
      },
    ],
  },
  "ticking, and a shorted rectifier": {
    ...{ board: flyback, symptoms: ["ticking"] },
    stages: [
      {
        cause: [outputs, "rectifier_shorted", "control_capacitor_dried"],
        next: ["D1", "D2", "C11", "C2", "C21", "C12"],
      },
      {
        read: [drop("D1", "A,K", 0.01), railOhms("v12", 0.3)],
        cause: ["rectifier_shorted"],
        out: ["lead_or_inlet_open"],
      },
    ],
  },
  "a Vcc capacitor of a hundred ohms": {
    ...{ board: flyback, symptoms: ["dead"] },
    stages: [
      { read: [esr("C2", 100), farads("C2", 2e-6)], cause: ["control_capacitor_dried"], out: ["switch_shorted"] },
      { read: goodOutputs, cause: ["control_capacitor_dried"], out: [outputs] },
    ],
  },
  "a supply pin that pulses": {
    ...{ board: flyback, symptoms: ["ticking"] },
    stages: [
      {
        read: [
          sampleReading("U1", {
            ...cold,
            quantity: "dc_voltage",
            terminals: "VCC,GND least",
            value: 8,
            isPowered: true,
          }),
          sampleReading("U1", {
            ...cold,
            quantity: "dc_voltage",
            terminals: "VCC,GND most",
            value: 15,
            isPowered: true,
          }),
        ],
        ...{
          cause: ["control_capacitor_dried", outputs, "control_rectifier_open"],
          next: ["C2"],
          out: ["lead_or_inlet_open"],
        },
      },
    ],
  },
  "cold mornings": {
    ...{ board: flyback, device: { ageYears: 12 }, symptoms: ["cold_start_fails"] },
    stages: [{ cause: ["control_capacitor_dried", outputs], next: ["C2", "C11", "C21", "C12"] }],
  },
  "volts too high": {
    ...{ board: flyback, symptoms: ["voltage_high"] },
    stages: [
      { cause: ["regulation_lost"], out: killers, next: ["OK1", "C3"] },
      { read: [esr("C3", 60), farads("C3", 3e-6)], cause: ["feedback_capacitor_dried"] },
    ],
  },
  "a lead that was found good": {
    ...{ board: flyback, symptoms: ["dead"] },
    intake: { checks: { leadAndFuse: "good", rearSwitch: "good" }, outputVolts: null },
    stages: [
      {
        cause: ["control_capacitor_dried", outputs, "switch_shorted", "start_resistor_open"],
        out: ["lead_or_inlet_open"],
      },
    ],
  },
  "a load that works on another supply": {
    ...{ board: flyback, symptoms: ["no_picture"] },
    intake: { checks: { swap: "good" }, outputVolts: null },
    stages: [{ cause: [outputs], out: ["load_faulty", ...killers] }],
  },
  "a load that stays dark on a bench supply": {
    ...{ board: flyback, symptoms: ["no_picture"] },
    intake: { checks: { benchFeed: "bad" }, outputVolts: null },
    stages: [{ cause: ["load_faulty"], out: killers }],
  },
  "twelve volts as received": {
    ...{ board: flyback, symptoms: ["fails_when_warm"] },
    intake: { checks: {}, outputVolts: 11.97 },
    stages: [{ cause: ["joint_cracked", outputs, "overheated_inside"], within: 2, out: killers }],
  },
  "minus one volt as received": {
    ...{ board: flyback, symptoms: ["voltage_low"] },
    intake: { checks: {}, outputVolts: -1 },
    stages: [{ read: [esr("C11", 8.3), farads("C11", 30e-6)], cause: [outputs] }],
  },
  "one bridge diode open": {
    ...{ board: flyback, symptoms: ["ripple_mains_single"] },
    stages: [
      { cause: ["bridge_diode_open"], within: 1, out: killers, next: ["BR1"] },
      { read: [drop("BR1", "L,+", null)], cause: ["bridge_diode_open"] },
    ],
  },
  "a bridge that points downstream": {
    ...{ board: flyback, symptoms: ["dead", "fuse_blown"] },
    stages: [
      {
        read: [...bridgeGood, drop("BR1", "+,-", 0.02), ohms("Q1", "D,S", 0.3)],
        ...{ cause: ["switch_shorted", outputs], within: 2, out: ["bridge_shorted"] },
      },
    ],
  },
  "a fan that stands": {
    ...{ board: flyback, symptoms: ["drops_after_minutes", "fan_noise_or_stops"] },
    stages: [{ cause: ["overheated_inside"], out: killers }],
  },
  "comes and goes with a knock": {
    ...{ board: flyback, symptoms: ["intermittent"] },
    stages: [{ cause: ["joint_cracked"], out: ["bridge_shorted"] }],
  },
  "the same in three of a type": {
    ...{ board: flyback, symptoms: ["repeated_attempts", "same_in_others"] },
    stages: [{ cause: [outputs, "control_capacitor_dried"], next: ["C11", "C12", "C2", "C21"] }],
  },
  "a television that stays on standby": {
    ...{ board: television, symptoms: ["indicator_steady"] },
    stages: [
      {
        cause: ["boost_control_dead", outputs, "load_faulty", "control_capacitor_dried", "boost_bulk_dried"],
        ...{ within: 2, out: ["fuse_open_alone", "lead_or_inlet_open", "bridge_shorted", "varistor_shorted"] },
      },
    ],
  },
  "a television with a picture for seconds": {
    ...{ board: television, symptoms: ["backlight_drops_out", "drops_after_seconds"] },
    stages: [{ cause: ["load_faulty"], within: 1, out: ["fuse_open_alone", "bridge_shorted", "switch_shorted"] }],
  },
  "a storm, a bang and an open fuse": {
    ...{ board: television, symptoms: ["dead", "fuse_blown", "bang"] },
    stages: [
      {
        cause: ["boost_switch_shorted", "switch_shorted", "boost_bulk_dried"],
        within: 2,
        out: [outputs],
        next: ["Q1", "BR1", "RV1", "Q2", "Q3"],
      },
      { read: [ohms("RV1", "1,2", 3)], cause: ["varistor_shorted"] },
    ],
  },
  "a boost transistor that took the fuse": {
    ...{ board: television, symptoms: ["dead", "fuse_blown"] },
    stages: [
      {
        read: [ohms("F1", "1,2", null), ohms("Q1", "D,S", 0.2)],
        ...{
          cause: ["boost_switch_shorted", "boost_bulk_dried", "boost_diode_shorted"],
          within: 3,
          next: ["D1", "R1", "C1", "BR1"],
        },
      },
      { read: [farads("C1", 22e-6), esr("C1", 9)], cause: ["boost_bulk_dried"] },
    ],
  },
  "a boost diode at ten millivolts": {
    ...{ board: television, symptoms: ["dead", "fuse_blown"] },
    stages: [
      {
        read: [drop("D1", "A,K", 0.01), ohms("Q1", "D,S", 0.3)],
        cause: ["boost_diode_shorted"],
        out: ["rectifier_shorted"],
      },
    ],
  },
  "a standby that dried": {
    ...{ board: television, device: { ageYears: 8 }, symptoms: ["repeated_attempts", "indicator_pulses"] },
    stages: [
      {
        cause: ["standby_capacitor_dried", outputs, "control_capacitor_dried"],
        within: 2,
        next: ["C31", "C2", "C11", "C12"],
      },
      { read: [esr("C31", 0.7), farads("C31", 300e-6)], cause: ["standby_capacitor_dried"], out: ["bridge_shorted"] },
    ],
  },
  "a standby switcher of ten ohms": {
    ...{ board: television, symptoms: ["dead"] },
    stages: [{ read: [ohms("U2", "VCC,GND", 10)], cause: ["standby_switcher_shorted"] }],
  },
  "a television whose light goes out after seconds": {
    ...{ board: television, symptoms: ["backlight_drops_out", "drops_after_seconds"] },
    stages: [{ cause: ["light_strip_open", "load_faulty", "light_driver_faulty", outputs], out: ["fuse_open_alone"] }],
  },
  "a television whose strip lights on a tester": {
    ...{ board: television, symptoms: ["backlight_drops_out", "drops_after_seconds"] },
    intake: { checks: { lamps: "good" }, outputVolts: null },
    stages: [{ cause: [outputs, "light_driver_faulty", "load_faulty"], out: ["light_strip_open"] }],
  },
  "a television dead after a storm": {
    ...{ board: television, symptoms: ["dead", "fuse_blown", "after_storm"] },
    stages: [
      {
        cause: ["boost_switch_shorted", "bridge_shorted", "varistor_shorted", "switch_shorted"],
        within: 2,
        next: ["C1", "BR1", "RV1", "Q1", "Q2", "Q3"],
      },
      { read: [ohms("RV1", "1,2", 4)], cause: ["varistor_shorted"] },
    ],
  },
  "an adapter that ticks": {
    ...{ board: adapter, symptoms: ["ticking"] },
    stages: [
      {
        cause: [outputs, "control_capacitor_dried", "rectifier_shorted", "load_faulty"],
        within: 2,
        next: ["D1", "C2", "C11", "C12"],
      },
    ],
  },
  "an adapter whose lead was bent": {
    ...{ board: adapter, symptoms: ["intermittent"] },
    intake: { checks: { outputLead: "bad" }, outputVolts: null },
    stages: [{ cause: ["output_cable_broken"] }],
  },
  "a dead adapter with a sound lead": {
    ...{ board: adapter, symptoms: ["dead"] },
    intake: { checks: { outputLead: "good", leadAndFuse: "good" }, outputVolts: null },
    stages: [
      {
        cause: ["control_capacitor_dried", "switch_shorted", outputs, "control_ic_faulty"],
        within: 2,
        out: ["output_cable_broken", "lead_or_inlet_open"],
      },
    ],
  },
  "a host board that resets": {
    ...{ board: host, symptoms: ["resets"] },
    stages: [
      { cause: [outputs], next: ["C1", "C2", "C11", "C12", "C21"] },
      { read: [esr("C1", 0.9), farads("C1", 350e-6)], cause: [outputs] },
    ],
  },
  "a dead host board": {
    ...{ board: host, symptoms: ["dead"] },
    stages: [{ cause: ["regulator_faulty", "rail_load_shorted", outputs], within: 2 }],
  },
  "a rail of a host that is shorted": {
    ...{ board: host, symptoms: ["dead"] },
    stages: [{ read: [railOhms("reg", 0.4)], cause: ["rail_load_shorted", "regulator_faulty"] }],
  },
};

describe("a repair as it is told", () => {
  for (const [name, vignette] of Object.entries(vignettes)) {
    it(name, () => {
      const readings: Reading[] = [];
      vignette.stages.forEach((stage, n) => {
        readings.push(...(stage.read ?? []));
        const { board: of, device } = vignette;
        const facts = sampleJob({
          ...{ nets: of.nets, positions: of.positions, fittedParts: of.parts, symptoms: vignette.symptoms },
          device: { kind: of.kind, topology: of.topology, ageYears: 6, ...device },
          intake: vignette.intake ?? { checks: {}, outputVolts: null },
          readings: [...readings],
        });
        const judgements = judgeBoard(facts, rules.judgement);
        const explained = explainJob(facts, judgements, rules);
        if (!explained) throw new Error(`stage ${n + 1} is not explained at all`);
        const { firstProbabilities, probabilities } = explained.ranking;
        const ranked = [...firstProbabilities].sort((a, b) => b[1] - a[1]);
        const told = ranked.slice(0, 5).map(([code, chance]) => `${code} ${chance.toFixed(2)}`);
        const first = ranked.slice(0, stage.within ?? 1).map(([code]) => code);
        expect(
          first.some((code) => stage.cause.includes(code)),
          `stage ${n + 1} began with ${told.join(", ")}`,
        ).toBe(true);
        for (const code of stage.out ?? []) {
          const chance = probabilities.get(code) ?? 0;
          expect(chance, `stage ${n + 1} still thinks of ${code}`).toBeLessThan(0.1);
        }
        if (!stage.next) return;
        const proposed = nextTargets({
          ...{ facts, judgements, deviceKind: of.kind, strategy: "failed_only", isChargeVerified: true },
          gains: explained.gains,
        });
        const three = proposed.slice(0, 3).map((one) => one.positionId.slice(3));
        expect(
          three.some((one) => stage.next?.includes(one)),
          `stage ${n + 1} proposes ${three.join(", ")}`,
        ).toBe(true);
      });
    });
  }
});

it("starts behind an open fuse with the store that is charged, then the shorts", () => {
  const facts = sampleJob({
    ...{
      nets: flyback.nets,
      positions: flyback.positions,
      fittedParts: flyback.parts,
      symptoms: ["dead", "fuse_blown", "bang"],
    },
    device: { kind: "monitor", topology: "flyback", ageYears: 6 },
  });
  const judgements = judgeBoard(facts, rules.judgement);
  const gains = explainJob(facts, judgements, rules)?.gains ?? new Map();
  const ask = (isChargeVerified: boolean) =>
    nextTargets({ facts, judgements, deviceKind: "monitor", strategy: "failed_only", isChargeVerified, gains });
  const [first, second] = ask(false);
  expect([first?.positionId, first?.quantity]).toEqual(["at-C1", "dc_voltage"]);
  expect(["at-Q1", "at-BR1"]).toContain(second?.positionId);
  expect(ask(true)[0]?.quantity).not.toBe("dc_voltage");
  const keys = ask(false).map((one) => [one.positionId, one.quantity, one.terminals].join());
  expect(new Set(keys).size).toBe(keys.length);
});
