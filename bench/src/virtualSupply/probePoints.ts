import {
  bulkMiddle,
  coldGround,
  hotGround,
  type ProbeState,
  type Scenario,
  type ScenarioCapacitor,
} from "@pale-cap/contract";
import { sectionFacts } from "@pale-cap/core";

/** Where two probes sit: two nodes, and the part between them where a part was named. */
export interface ProbePoints {
  readonly text: string;
  readonly nodes: readonly [string, string];
  readonly capacitor: ScenarioCapacitor | null;
  /** Designator of the part that was named, whatever it is; empty where none was. */
  readonly part: string;
  readonly state: ProbeState;
}

/** The ground of a net's own side. */
export function groundOf(scenario: Scenario, netName: string): string {
  const net = scenario.nets.find((one) => one.name === netName);
  return net && sectionFacts[net.section].isMainsSide ? hotGround : coldGround;
}

/** Between which nodes a capacitor lies: a net and its ground, or one half of a doubler's bulk. */
export function nodesOfCapacitor(scenario: Scenario, part: ScenarioCapacitor): readonly [string, string] {
  const ground = groundOf(scenario, part.net);
  const section = scenario.nets.find((one) => one.name === part.net)?.section;
  if (!scenario.isDoubler || section !== "bulk") return [part.net, ground];
  const [upper] = scenario.capacitors.filter((one) => one.net === part.net);
  return upper?.at === part.at ? [part.net, bulkMiddle] : [bulkMiddle, ground];
}

const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

/**
 * Reads where the probes go: a designator (`C14`, a part with two pins), a net (`16 V`, against the ground of its side),
 * or two nodes or pins (`Q1.D,Q1.S`), red first. A board is found in by its designators, without regard to case.
 *
 * @returns null where there is nothing of that name
 */
export function probePoints(scenario: Scenario, text: string, state: ProbeState): ProbePoints | null {
  const capacitor = scenario.capacitors.find((one) => sameName(one.at, text)) ?? null;
  if (capacitor) return { text, nodes: nodesOfCapacitor(scenario, capacitor), capacitor, part: capacitor.at, state };
  const net = scenario.nets.find((one) => sameName(one.name, text));
  if (net) return { text, nodes: [net.name, groundOf(scenario, net.name)], capacitor: null, part: "", state };
  const device = scenario.devices.find((one) => sameName(one.at, text));
  if (device) {
    const [first, second] = Object.values(device.pins);
    return first && second ? { text, nodes: [first, second], capacitor: null, part: device.at, state } : null;
  }
  const [red, black] = text.split(",").map((one) => nodeOf(scenario, one));
  return red && black ? { text, nodes: [red, black], capacitor: null, part: "", state } : null;
}

function nodeOf(scenario: Scenario, text: string): string | null {
  const [at = "", pin] = text.trim().split(".");
  if (pin !== undefined) {
    const pins = scenario.devices.find((one) => sameName(one.at, at))?.pins ?? {};
    return Object.entries(pins).find(([name]) => sameName(name, pin))?.[1] ?? null;
  }
  const nodes = [
    hotGround,
    coldGround,
    ...(scenario.isDoubler ? [bulkMiddle] : []),
    ...scenario.nets.map((net) => net.name),
    ...scenario.devices.flatMap((one) => Object.values(one.pins)),
  ];
  return nodes.find((node) => sameName(node, at)) ?? null;
}
