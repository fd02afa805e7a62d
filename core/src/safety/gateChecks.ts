import type { BoardNet, BoardPosition, PartKind } from "../board/board";
import { sectionFacts } from "../board/sections";
import { tradeConstants } from "../constants/tradeConstants";
import type { GateItem, GateValue } from "../facts/powerEvents";

const {
  contradictingOhms,
  contradictingVolts,
  oddLineOhms,
  oddBulkOhms,
  oddChannelOhms,
  oddShuntOhms,
  leakingOhms,
  mostBondOhms,
  usualBondOhms,
} = tradeConstants.safety;

/** How a tick and its numbers go together. */
export type GateFinding = "sound" | "odd" | "contradicts" | "incomplete";

interface ItemRule {
  readonly quantity: "resistance" | "diode_drop";
  readonly count: 1 | 2;
  /** At or below this no person's tick stands. */
  readonly contradictsBelow: number | null;
  /** Above this neither: a protective earth that is none. */
  readonly contradictsAbove?: number;
  readonly usual: (values: readonly GateValue[]) => boolean;
}

const atLeast =
  (ohms: number) =>
  (values: readonly GateValue[]): boolean =>
    values.every((one) => one === "open" || one >= ohms);

/** A junction: one way some tenths of a volt to two drops, the other way nothing. */
function isJunction([forward, backward]: readonly GateValue[]): boolean {
  return typeof forward === "number" && forward >= 0.3 && forward <= 1.6 && backward === "open";
}

/**
 * How each item is read. Below 10 ohm, or 0.1 V in a diode test either way, it is a short whatever anybody ticks; a shunt is
 * low by its nature. What is usual beyond that: bench habits, rough.
 */
export const gateItemRules: Readonly<Record<GateItem, ItemRule>> = {
  line_neutral: {
    ...{ quantity: "resistance", count: 1, contradictsBelow: contradictingOhms },
    usual: atLeast(oddLineOhms),
  },
  bridge: { quantity: "diode_drop", count: 2, contradictsBelow: contradictingVolts, usual: isJunction },
  bulk: { quantity: "resistance", count: 1, contradictsBelow: contradictingOhms, usual: atLeast(oddBulkOhms) },
  transistor: { quantity: "resistance", count: 1, contradictsBelow: contradictingOhms, usual: atLeast(oddChannelOhms) },
  shunt: {
    ...{ quantity: "resistance", count: 1, contradictsBelow: null },
    usual: ([one]) => typeof one === "number" && one <= oddShuntOhms,
  },
  single_diode: { quantity: "diode_drop", count: 2, contradictsBelow: contradictingVolts, usual: isJunction },
  gate_source: {
    quantity: "resistance",
    count: 1,
    contradictsBelow: contradictingOhms,
    usual: atLeast(oddChannelOhms),
  },
  earth_insulation: {
    quantity: "resistance",
    count: 1,
    contradictsBelow: contradictingOhms,
    usual: atLeast(leakingOhms),
  },
  rail: { quantity: "resistance", count: 1, contradictsBelow: null, usual: atLeast(contradictingOhms) },
  earth_bond: {
    ...{ quantity: "resistance", count: 1, contradictsBelow: null, contradictsAbove: mostBondOhms },
    usual: ([one]) => typeof one === "number" && one <= usualBondOhms,
  },
  sink: { quantity: "resistance", count: 1, contradictsBelow: contradictingOhms, usual: atLeast(oddLineOhms) },
};

/**
 * What the numbers of an item say of the tick "no short": `contradicts` refuses it, `odd` wants one more key, `incomplete`
 * has not all its numbers. A picked reason stands without numbers.
 *
 * @param values in the order of the item: ohms, or volts forward and backward
 */
export function gateFinding(item: GateItem, values: readonly GateValue[], hasReason: boolean): GateFinding {
  const { count, contradictsBelow, contradictsAbove, usual } = gateItemRules[item];
  const isLow = (one: GateValue) => contradictsBelow !== null && one !== "open" && one < contradictsBelow;
  const isHigh = (one: GateValue) => contradictsAbove !== undefined && (one === "open" || one > contradictsAbove);
  if (values.some(isLow) || values.some(isHigh)) return "contradicts";
  if (values.length < count) return hasReason ? "sound" : "incomplete";
  return usual(values) ? "sound" : "odd";
}

/** One thing to test, of which part. */
export interface GateDemand {
  readonly item: GateItem;
  /** The position or net that it is tested on; null: the unit, or a part that nobody entered. */
  readonly subjectId: string | null;
  readonly designator: string | null;
}

/** Whether two demands, or a demand and a check, are of the same thing. */
export const demandKey = ({ item, subjectId }: Pick<GateDemand, "item" | "subjectId">): string =>
  `${item}:${subjectId ?? ""}`;

export interface GateBoard {
  readonly nets: readonly BoardNet[];
  readonly positions: readonly BoardPosition[];
}

/** Parts that stand on the output side of every supply, where their net does not say. */
const outputKinds: readonly PartKind[] = ["electrolytic", "fan", "regulator", "connector"];

/** Whether hands at a part are at the mains side; what no net places is taken for it, unless its kind never stands there. */
export function isOnMainsSide({ nets }: Pick<GateBoard, "nets">, { netId, kind }: BoardPosition): boolean {
  const net = nets.find((one) => one.id === netId);
  return net ? sectionFacts[net.section].isMainsSide : !outputKinds.includes(kind);
}

/** Resistors up to here in series with a transistor are shunts. */
const shuntOhms = 10;

/**
 * What is tested after a blown fuse, a bang or a tripped breaker: line to neutral, the bridge, the bulk, each power
 * transistor and the shunt; where the board names none of a kind it is asked of the unit.
 */
export function shortDemands(board: GateBoard): readonly GateDemand[] {
  const onMains = board.positions.filter((one) => isOnMainsSide(board, one));
  const each = (item: GateItem, places: readonly BoardPosition[]): readonly GateDemand[] =>
    places.length > 0
      ? places.map(({ id, designator }) => ({ item, subjectId: id, designator }))
      : [{ item, subjectId: null, designator: null }];
  const ofKind = (kind: BoardPosition["kind"]) => onMains.filter((one) => one.kind === kind);
  const shunts = ofKind("resistor").filter((one) => one.markedOhms !== null && one.markedOhms <= shuntOhms);
  return [
    { item: "line_neutral", subjectId: null, designator: null },
    ...each("bridge", ofKind("bridge")),
    { item: "bulk", subjectId: null, designator: null },
    ...each("transistor", ofKind("transistor")),
    ...each("shunt", shunts),
  ];
}

/** What is looked at closer where one of the short tests read low: the single diodes, the gate of that transistor. */
export function closerDemands(low: GateDemand): readonly GateDemand[] {
  const { subjectId, designator } = low;
  if (low.item === "transistor") return [{ item: "gate_source", subjectId, designator }];
  return low.item === "bridge" || low.item === "line_neutral" ? [{ item: "single_diode", subjectId, designator }] : [];
}
