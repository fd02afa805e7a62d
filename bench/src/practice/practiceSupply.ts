import type { HandCheck, Scenario } from "@pale-cap/contract";
import { type DeviceKind, outsideItem, type PracticeSkill, type VisualSign } from "@pale-cap/core";
import { hasFailed } from "../virtualSupply/fatedFoil";

/** A supply to practise on: the board with its truth, and what its owner, its looks and its sounds tell. */
export interface PracticeSupply {
  readonly scenario: Scenario;
  readonly deviceKind: DeviceKind;
  readonly deviceModel: string;
  /** What the owner says. */
  readonly story: string;
  /** How the owner answers when asked: symptom codes. */
  readonly symptoms: readonly string[];
  /** 1 one fault that shows itself, 2 hidden or with a cascade, 3 with what misleads. */
  readonly difficulty: 1 | 2 | 3;
  readonly smell: string | null;
  /** What the eye finds at a part, as the signs of the record. */
  readonly signs: Readonly<Record<string, readonly VisualSign[]>>;
  /** It is not the supply: which trial around it comes out badly. */
  readonly outside: HandCheck | null;
  /** Why it is as it is: told at the end. */
  readonly answer: string;
}

/** What a supply asks of whoever takes it on. */
export function skillsOf(supply: PracticeSupply): readonly PracticeSkill[] {
  const bad = [...truthOf(supply)].flatMap(([at, isBadPart]) => (isBadPart && at !== outsideItem ? [at] : []));
  const cans = bad.filter((at) => supply.scenario.capacitors.some((part) => part.at === at));
  return [
    ...(supply.scenario.topology === "buck" ? [] : (["draining"] as const)),
    ...(cans.length > 0 ? (["in_circuit", "choosing"] as const) : []),
    ...(bad.length - cans.length > 1 ? (["cascades"] as const) : []),
    ...(bad.length > 0 ? (["proving"] as const) : []),
  ];
}

/** Broken, with a contact that opens by itself, or there where nothing should conduct. */
const isBad = ({ condition, weak, role }: Scenario["devices"][number]) =>
  condition !== "good" || (weak ?? null) !== null || role === "glue";

/** Everything a learner is asked about at the end, and whether it is bad. */
export function truthOf({ scenario, outside }: PracticeSupply): ReadonlyMap<string, boolean> {
  return new Map([
    ...scenario.capacitors.map((part) => [part.at, hasFailed(part)] as const),
    ...scenario.devices.map((one) => [one.at, isBad(one)] as const),
    [outsideItem, outside !== null],
  ]);
}
