import { bankOf } from "../board/bank";
import { currentPart } from "../board/board";
import { type DeviceTestCode, deviceTests } from "../board/deviceTests";
import { sectionFacts } from "../board/sections";
import type { JobFacts } from "../facts/jobFacts";
import type { CircuitState, QuantityKind } from "../readings/reading";

export type ProbeInstrument = "lcr" | "multimeter" | "oscilloscope" | "thermometer" | "bench_supply" | "senses";

/** What can go wrong with the hand, the meter or the reading at a probe point. */
export type ProbeCaution =
  | "volts_first"
  | "live_hot_ground"
  | "live_cold_ground"
  | "two_channels"
  | "scope_earth"
  | "limited_energy";

/** One place to put probes, what to read there and how. */
export interface ProbePoint {
  readonly key: string;
  readonly group: "bank" | "part" | "device" | "rail" | "low_energy";
  readonly targetKind: "part" | "rail" | "unit";
  readonly targetId: string;
  readonly terminals: string | null;
  readonly quantity: QuantityKind;
  readonly circuitState: CircuitState | null;
  readonly instrument: ProbeInstrument;
  readonly isLive: boolean;
  /** Only some parts have these pins: in the list, and no step of the walk. */
  readonly isOptional: boolean;
  /** Which ground black goes to, for live tests. */
  readonly ground: "hot" | "cold" | null;
  readonly cautions: readonly ProbeCaution[];
  /** With a bank: its parts. */
  readonly positionIds: readonly string[];
  readonly test: DeviceTestCode | LowEnergyTest | null;
}

/** Tests with a limited supply before the mains: what is fed where, and what is looked for. */
const lowEnergyTests = [
  "vcc_start",
  "vcc_current",
  "gate_waveform",
  "bulk_limited",
  "rail_injection",
  "rail_warm_spot",
] as const;
export type LowEnergyTest = (typeof lowEnergyTests)[number];

/**
 * Every probe point of a board, in the order of the work: banks in circuit, each part alone, each standard test of the
 * other parts, low-energy tests, rails live. Derived from nets and parts; nothing of it is stored.
 */
export function probePoints(facts: Pick<JobFacts, "nets" | "positions" | "fittedParts">): readonly ProbePoint[] {
  return [
    ...bankPoints(facts),
    ...partPoints(facts),
    ...devicePoints(facts),
    ...lowEnergyPoints(facts),
    ...railPoints(facts),
  ];
}

type Board = Pick<JobFacts, "nets" | "positions" | "fittedParts">;

const cold = { isLive: false, isOptional: false, ground: null, positionIds: [], test: null, terminals: null } as const;

function bankPoints(facts: Board): readonly ProbePoint[] {
  const seen = new Set<string>();
  return capacitors(facts).flatMap((position): ProbePoint[] => {
    if (position.netId === null || seen.has(position.netId)) return [];
    const bank = bankOf(position, facts.positions, facts.fittedParts);
    if (bank.length < 2) return [];
    seen.add(position.netId);
    const positionIds = bank.map((one) => one.id);
    const common = { ...cold, group: "bank", targetKind: "part", targetId: position.id, positionIds } as const;
    return [
      {
        ...common,
        key: `bank-${position.netId}`,
        quantity: "esr",
        circuitState: "in_circuit",
        instrument: "lcr",
        cautions: ["volts_first"],
      },
    ];
  });
}

function partPoints(facts: Board): readonly ProbePoint[] {
  return capacitors(facts).flatMap((position): ProbePoint[] => {
    const common = {
      ...cold,
      group: "part",
      targetKind: "part",
      targetId: position.id,
      cautions: ["volts_first"],
    } as const;
    const isAlone = bankOf(position, facts.positions, facts.fittedParts).length < 2;
    const circuitState: CircuitState = isAlone ? "in_circuit" : "lead_lifted";
    return [
      { ...common, key: `esr-${position.id}`, quantity: "esr", circuitState, instrument: "lcr" },
      {
        ...common,
        key: `capacitance-${position.id}`,
        quantity: "capacitance",
        circuitState: "lead_lifted",
        instrument: "lcr",
      },
      {
        ...common,
        key: `loss-${position.id}`,
        quantity: "voltage_loss",
        circuitState: "lead_lifted",
        instrument: "lcr",
      },
    ];
  });
}

function devicePoints(facts: Board): readonly ProbePoint[] {
  return facts.positions.flatMap((position) => {
    const section = facts.nets.find((net) => net.id === position.netId)?.section;
    const isMainsSide = section ? sectionFacts[section].isMainsSide : true;
    return (deviceTests[position.kind] ?? []).map(
      (test): ProbePoint => ({
        ...cold,
        key: `${test.code}-${test.terminals}-${position.id}`,
        group: "device",
        targetKind: "part",
        targetId: position.id,
        terminals: test.terminals || null,
        quantity: test.quantity,
        circuitState: "in_circuit",
        instrument: test.quantity === "observation" ? "senses" : "multimeter",
        isLive: test.isLive === true,
        isOptional: test.isOptional === true,
        ground: !test.isLive ? null : isMainsSide ? "hot" : "cold",
        cautions: test.isLive
          ? [isMainsSide ? "live_hot_ground" : "live_cold_ground"]
          : test.quantity === "observation"
            ? []
            : ["volts_first"],
        test: test.code,
      }),
    );
  });
}

/** Fed from a current-limited bench supply, the plug out: the converter shows itself with little to break. */
function lowEnergyPoints(facts: Board): readonly ProbePoint[] {
  const on = (test: LowEnergyTest, netId: string, quantity: QuantityKind, instrument: ProbeInstrument): ProbePoint => {
    const section = facts.nets.find((net) => net.id === netId)?.section ?? "other";
    const { isMainsSide } = sectionFacts[section];
    return {
      ...cold,
      key: `${test}-${netId}`,
      group: "low_energy",
      targetKind: "rail",
      targetId: netId,
      terminals: test,
      quantity,
      circuitState: "in_circuit",
      instrument,
      isLive: true,
      ground: isMainsSide ? "hot" : "cold",
      cautions: ["limited_energy", ...(instrument === "oscilloscope" ? (["scope_earth"] as const) : [])],
      test,
    };
  };
  return facts.nets.flatMap((net): ProbePoint[] => {
    if (net.section === "vcc") {
      return [
        on("vcc_start", net.id, "dc_voltage", "bench_supply"),
        on("vcc_current", net.id, "leakage_current", "bench_supply"),
        on("gate_waveform", net.id, "ripple_voltage", "oscilloscope"),
      ];
    }
    if (net.section === "bulk" || net.section === "pfc")
      return [on("bulk_limited", net.id, "dc_voltage", "bench_supply")];
    if (net.section === "output" || net.section === "standby") {
      return [
        on("rail_injection", net.id, "dc_voltage", "bench_supply"),
        on("rail_warm_spot", net.id, "temperature", "thermometer"),
      ];
    }
    return [];
  });
}

function railPoints(facts: Board): readonly ProbePoint[] {
  return facts.nets
    .filter((net) => net.nominalVolts !== null)
    .flatMap((net): ProbePoint[] => {
      const { isMainsSide } = sectionFacts[net.section];
      const ground = isMainsSide ? "hot" : "cold";
      const groundCaution: ProbeCaution = isMainsSide ? "live_hot_ground" : "live_cold_ground";
      const common = {
        ...cold,
        group: "rail",
        targetKind: "rail",
        targetId: net.id,
        circuitState: null,
        isLive: true,
        ground,
      } as const;
      return [
        {
          ...common,
          key: `volts-${net.id}`,
          quantity: "dc_voltage",
          instrument: "multimeter",
          cautions: [groundCaution],
        },
        {
          ...common,
          key: `ripple-${net.id}`,
          quantity: "ripple_voltage",
          instrument: "oscilloscope",
          cautions: [groundCaution, "two_channels", "scope_earth"],
        },
      ];
    });
}

const capacitors = (facts: Board) =>
  facts.positions.filter((one) => one.kind === "electrolytic" && currentPart(facts.fittedParts, one.id) !== undefined);
