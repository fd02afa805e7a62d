import type { Scenario } from "@pale-cap/contract";
import { sectionFacts } from "@pale-cap/core";

/** A resistor of less than two ohms senses a current. */
const isShunt = ({ kind, ohms }: Scenario["devices"][number]) => kind === "resistor" && (ohms ?? 1e9) < 2;

/** Fuse or thermistor open: no mains gets to the bulk. */
export const isPathOpen = (scenario: Scenario) =>
  scenario.devices.some((one) => one.condition === "open" && (one.kind === "fuse" || one.kind === "ntc"));

/** Transistors whose source still has its way to ground, and bulk capacitors that conduct. */
export function isPrimaryShorted(scenario: Scenario): boolean {
  const hot = new Set(scenario.nets.filter((net) => sectionFacts[net.section].isMainsSide).map((net) => net.name));
  const isShuntOpen = scenario.devices.some((one) => isShunt(one) && one.condition === "open");
  const transistor = scenario.devices.some(
    (one) => one.kind === "transistor" && one.condition === "shorted" && !isShuntOpen,
  );
  const bridge = scenario.devices.some((one) => one.kind === "bridge" && one.condition === "shorted");
  const bulk = scenario.capacitors.some(
    (part) =>
      hot.has(part.net) && part.net !== scenario.control.net && part.leakageOhms != null && part.leakageOhms < 200,
  );
  return transistor || bridge || bulk;
}

/** Whether transistor, shunt and control IC are all there. */
export const canSwitch = (scenario: Scenario) =>
  !scenario.devices.some(
    (one) => one.condition !== "good" && (one.kind === "transistor" || one.kind === "ic" || isShunt(one)),
  );

/** A rectifier at an output that conducts both ways. */
export const hasShortedOutput = (scenario: Scenario) =>
  scenario.devices.some((one) => one.kind === "schottky" && one.condition === "shorted");
