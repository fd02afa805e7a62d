import { describe, expect, it } from "vitest";
import {
  sampleJob,
  sampleNet,
  samplePart,
  samplePosition,
  sampleReading,
  sampleRules,
  shopRecord,
} from "../../testing/sampleJob";
import { line, told } from "../../testing/told";
import type { BaselineValue } from "../board/baseline";
import type { BoardNet, BoardPosition, FittedPart } from "../board/board";
import type { JudgementRules } from "../facts/jobRules";
import type { VisualSign } from "../facts/visualSigns";
import type { CoarseCode, Reading } from "../readings/reading";
import { type BoardFacts, judgeBoard } from "./judgeBoard";
import { judgeDevice } from "./judgeDevice";

/**
 * Judgements held to the last number of their ledgers. A change of the file beside this is a change of what technicians are
 * told: its commit says why.
 */
interface Board {
  readonly nets?: readonly BoardNet[];
  readonly positions?: readonly BoardPosition[];
  readonly parts?: readonly FittedPart[];
  readonly readings?: readonly Reading[];
  readonly more?: Partial<BoardFacts>;
  readonly rules?: Partial<JudgementRules>;
}

const inCircuit = { circuitState: "in_circuit" } as const;
const out = { circuitState: "out" } as const;
const esr = (value: number, more: Partial<Reading> = {}, of = "C1") => sampleReading(of, { value, ...more });
const farads = (value: number, more: Partial<Reading> = {}, of = "C1") =>
  sampleReading(of, { quantity: "capacitance", value, frequencyHertz: 120, ...more });
const ohms = (value: number, more: Partial<Reading> = {}, of = "C1") =>
  sampleReading(of, { quantity: "resistance", value, frequencyHertz: null, ...more });
const word = (quantity: Reading["quantity"], coarseCode: CoarseCode, more: Partial<Reading> = {}) =>
  sampleReading("C1", { quantity, coarseCode, value: null, frequencyHertz: null, ...more });
const sign = (name: VisualSign, state: "seen" | "not_seen" = "seen") => ({
  ...{ fittedPartId: "part-C1", sign: name, state, sequence: 1, observedAt: "2026-11-23T10:00:00Z" },
});
const alone = { positions: [samplePosition("C1")], parts: [samplePart("C1")] };
const three = {
  positions: ["C1", "C2", "C3"].map((name) => samplePosition(name)),
  parts: [samplePart("C1"), samplePart("C2"), samplePart("C3", { capacitanceFarads: 470e-6 })],
};
const network = { arrangement: "parallel", behindNetId: "net-before", chokeHenrys: null, chokeOhms: null } as const;
const baseline = (typical: number, isKnownGood: boolean, isInCircuit = false): BaselineValue => ({
  ...{ designator: "C1", quantity: "esr", frequencyHertz: 100e3, isInCircuit, unitCount: 4, isKnownGood },
  ...{ typical, low: typical * 0.8, high: typical * 1.2 },
});

const boards: Readonly<Record<string, Board>> = {
  "alone, in circuit, high": { ...alone, readings: [esr(0.6, inCircuit)] },
  "alone, in circuit, low": { ...alone, readings: [esr(0.035, inCircuit)] },
  "alone, lifted, at the typical value": { ...alone, readings: [esr(0.03)] },
  "alone, lifted, worn": { ...alone, readings: [esr(0.09)] },
  "alone, out, with capacitance and loss": {
    ...alone,
    readings: [
      esr(0.05, out),
      farads(7.6e-4, out),
      sampleReading("C1", { quantity: "voltage_loss", value: 0.03, ...out, frequencyHertz: null }),
    ],
  },
  "alone, half of its capacitance": { ...alone, readings: [farads(5e-4)] },
  "alone, capacitance in circuit": { ...alone, readings: [farads(6e-4, inCircuit)] },
  "alone, leaking by current and by loss": {
    ...alone,
    readings: [
      sampleReading("C1", { quantity: "leakage_current", value: 2e-3, ...out, frequencyHertz: null }),
      sampleReading("C1", { quantity: "voltage_loss", value: 0.25, ...out, frequencyHertz: null }),
    ],
  },
  "alone, two kilohms out of circuit": { ...alone, readings: [ohms(2000, out)] },
  "alone, fifty kilohms out of circuit: may still be charging": { ...alone, readings: [ohms(50e3, out)] },
  "alone, repeats that do not agree": { ...alone, readings: [esr(0.03), esr(0.09), esr(0.2)] },
  "alone, bad in circuit, good right after the iron": { ...alone, readings: [esr(0.6, inCircuit), esr(0.04)] },
  "alone, at 1 kHz and 45 degrees": {
    ...alone,
    readings: [esr(0.12, { frequencyHertz: 1000, temperatureCelsius: 45 }), esr(0.05)],
  },
  "alone, domed and leaking": { ...alone, more: { signs: [sign("domed"), sign("leak")] }, readings: [esr(0.04)] },
  "alone, nothing seen, and it counts a little": {
    ...alone,
    more: { signs: [sign("domed", "not_seen"), sign("leak", "not_seen")] },
    readings: [esr(0.045, inCircuit)],
    rules: { cleanLookSchool: "counts_a_little" },
  },
  "alone, by a coarse tester, a finger and a thermometer": {
    ...alone,
    readings: [
      word("tester_band", "band_bad", inCircuit),
      word("observation", "hot", inCircuit),
      sampleReading("C1", { quantity: "temperature", value: 71, frequencyHertz: null }),
    ],
  },
  "alone, a coarse word beside a number": {
    ...alone,
    readings: [esr(0.04), word("tester_band", "band_doubtful", out)],
  },
  "alone, against a known-good unit and the record": {
    ...alone,
    readings: [esr(0.08)],
    more: {
      baseline: [baseline(0.03, true)],
      record: shopRecord([{ level: "place", subject: "C1", failedCount: 9, seenCount: 10 }]),
    },
  },
  "alone, against parts that were judged sound": {
    ...alone,
    readings: [esr(0.035)],
    more: { baseline: [baseline(0.033, false)] },
  },
  "alone, overruled by a person": {
    ...alone,
    readings: [esr(0.6)],
    more: {
      overrules: [
        {
          ...{ fittedPartId: "part-C1", verdict: "sound", reason: "lead broke", sequence: 2 },
          at: "2026-11-23T11:00:00Z",
        },
      ],
    },
  },
  "alone, of unknown marking": {
    ...alone,
    parts: [samplePart("C1", { capacitanceFarads: null, ratedVolts: null })],
    readings: [esr(0.6)],
  },
  "alone, a polymer": {
    ...alone,
    parts: [samplePart("C1", { capacitorClass: "polymer", diameterMetres: 0.008, heightMetres: 0.012 })],
    readings: [esr(0.06)],
  },
  "alone, by tan delta, a stricter school, impedance shown, leads not zeroed": {
    ...alone,
    readings: [esr(0.12, inCircuit)],
    rules: { school: "ten", esrSourceSchool: "tan_delta", testerShows: "magnitude", leadOhms: 0.02 },
  },
  "a bank of three, read together": { ...three, readings: [esr(0.012, inCircuit)] },
  "a bank of three, one lifted and bad": { ...three, readings: [esr(0.013, inCircuit), esr(0.5)] },
  "a bank of three, cleared by a bound": {
    ...three,
    readings: [esr(0.0102, inCircuit)],
    rules: { inCircuitSchool: "bank_bound" },
  },
  "a bank of three, ESR and C of all, a cold load beside": {
    ...three,
    readings: [esr(0.02, inCircuit), farads(1.4e-3, inCircuit), ohms(180, inCircuit)],
  },
  "a bank of three that conducts": { ...three, readings: [ohms(3, inCircuit), esr(0.012, inCircuit)] },
  "behind a choke": {
    nets: [
      sampleNet({ network: { ...network, chokeHenrys: 4.7e-6, chokeOhms: 0.02 } }),
      sampleNet({ id: "net-before" }),
    ],
    positions: [samplePosition("C1"), samplePosition("C2", { netId: "net-before" })],
    parts: [samplePart("C1"), samplePart("C2")],
    readings: [esr(0.03, inCircuit), esr(0.2, inCircuit, "C2")],
  },
  "behind a choke of which nothing is known": {
    nets: [sampleNet({ network }), sampleNet({ id: "net-before" })],
    positions: [samplePosition("C1"), samplePosition("C2", { netId: "net-before" })],
    parts: [samplePart("C1"), samplePart("C2")],
    readings: [esr(0.09, inCircuit)],
  },
  "two in series": {
    ...{ nets: [sampleNet({ network: { ...network, arrangement: "series", behindNetId: null } })] },
    positions: [samplePosition("C1"), samplePosition("C2")],
    parts: [samplePart("C1"), samplePart("C2")],
    readings: [esr(0.5, inCircuit), esr(0.04, inCircuit, "C2")],
  },
};

/** A judgement on a line of its own, each entry of its ledger on another. */
function lines(judgement: object, ids: readonly string[]): readonly string[] {
  const { ledger = [], lines: tests = [], ...rest } = told(judgement, ids) as { ledger?: object[]; lines?: object[] };
  return [rest, ...ledger, ...tests].map((one) => line(one));
}

describe("a board worked through", () => {
  it.each(Object.entries(boards))("%s", (_name, board) => {
    const { nets = [sampleNet()], positions = [], parts = [], readings = [] } = board;
    const facts: BoardFacts = {
      ...sampleJob(),
      nets,
      positions,
      fittedParts: parts,
      readings,
      signs: [],
      ...board.more,
    };
    const judgements = judgeBoard(facts, { ...sampleRules.judgement, ...board.rules });
    const ids = readings.map((one) => one.id);
    expect([...judgements.values()].flatMap((one) => lines(one, ids))).toMatchSnapshot();
  });
});

describe("another part worked through", () => {
  const read = (terminals: string, quantity: Reading["quantity"], value: number | null, more: Partial<Reading> = {}) =>
    sampleReading("X1", {
      ...{ terminals, quantity, value, fittedPartId: null, frequencyHertz: null, ...inCircuit },
      ...(value === null && { coarseCode: "over_range" as const }),
      ...more,
    });
  const cases: readonly [string, Partial<BoardPosition>, readonly Reading[]][] = [
    ["a fuse through, and open", { kind: "fuse" }, [read("1,2", "resistance", 0.05), read("1,2", "resistance", null)]],
    ["a thermistor by the usual band", { kind: "ntc" }, [read("1,2", "resistance", 60)]],
    ["a thermistor by its marking", { kind: "ntc", markedOhms: 10 }, [read("1,2", "resistance", 5.9)]],
    ["a thermistor within its marking", { kind: "ntc", markedOhms: 10 }, [read("1,2", "resistance", 14.9)]],
    ["a diode that is sound", { kind: "diode" }, [read("A,K", "diode_drop", 0.55), read("K,A", "diode_drop", null)]],
    ["a diode shorted in circuit", { kind: "diode" }, [read("A,K", "diode_drop", 0.01)]],
    [
      "a diode shorted and lifted",
      { kind: "diode" },
      [read("A,K", "diode_drop", 0.01, { circuitState: "lead_lifted" })],
    ],
    ["a diode that conducts backward in circuit", { kind: "diode" }, [read("K,A", "diode_drop", 0.7)]],
    ["a transistor off", { kind: "transistor" }, [read("D,S", "resistance", 2e6), read("G,S", "resistance", null)]],
    ["a transistor shorted", { kind: "transistor" }, [read("D,S", "resistance", 0.4)]],
    ["a resistor on its marking", { kind: "resistor", markedOhms: 100 }, [read("1,2", "resistance", 104)]],
    ["a resistor low in circuit", { kind: "resistor", markedOhms: 100 }, [read("1,2", "resistance", 60)]],
    ["a resistor high", { kind: "resistor", markedOhms: 100 }, [read("1,2", "resistance", 150)]],
    ["a resistor without a marking", { kind: "resistor" }, [read("1,2", "resistance", 150)]],
    [
      "a bridge across its points",
      { kind: "bridge" },
      [read("L,+", "diode_drop", 0.5), read("+,-", "diode_drop", 0.02)],
    ],
    ["a chip whose supply is shorted", { kind: "ic" }, [read("VCC,GND", "resistance", 3)]],
    ["a coupler's lamp", { kind: "optocoupler" }, [read("A,K", "diode_drop", 1.1), read("C,E", "resistance", 900)]],
    ["a winding that is open", { kind: "transformer" }, [read("1,2", "resistance", null)]],
    [
      "a regulator live, on its rail",
      { kind: "regulator" },
      [read("OUT,GND least", "dc_voltage", 11.8, { isPowered: true })],
    ],
    ["a part that nobody tests", { kind: "connector" }, []],
  ];
  it.each(cases)("%s", (_name, more, readings) => {
    const position = samplePosition("X1", { id: "at-X1", ...more });
    const facts = sampleJob({ positions: [position], fittedParts: [], readings });
    const ids = readings.map((one) => one.id);
    expect(lines(judgeDevice(position, facts) ?? {}, ids)).toMatchSnapshot();
  });
});
