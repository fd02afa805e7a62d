import { coldGround, hotGround, type Scenario, type ScenarioDevice, type ScenarioRole } from "@pale-cap/contract";
import { sectionFacts } from "@pale-cap/core";
import { fatedFoil } from "./fatedFoil";

/** A resistor of less than two ohms senses a current. */
const isShunt = ({ kind, ohms }: ScenarioDevice) => kind === "resistor" && (ohms ?? 1e9) < 2;
const isOf = (role: ScenarioRole) => (one: ScenarioDevice) => one.role === role;
/** Of the main converter: what has no role, and what has this one. */
const isMain = ({ role }: ScenarioDevice) => role === undefined || role === "main";
/** On the way of the mains, before the bridge. */
const isAcrossMains = ({ pins }: ScenarioDevice) =>
  Object.values(pins).some((node) => node.startsWith("line")) && Object.values(pins).includes("neutral");

const nothing: ReadonlySet<string> = new Set();

/** What a capacitor leaks, by its foil or as told. */
export const leakOhmsOf = (part: Scenario["capacitors"][number]): number =>
  part.fate ? fatedFoil(part).leakOhms : (part.leakageOhms ?? Number.POSITIVE_INFINITY);

/** Fuse or thermistor open, or a contact in their way: no mains gets to the bulk. */
export const isPathOpen = (scenario: Scenario, openSpots: ReadonlySet<string> = nothing) =>
  scenario.devices.some(
    (one) =>
      (one.condition === "open" && (one.kind === "fuse" || one.kind === "ntc")) ||
      (openSpots.has(one.at) && (one.weak?.path === "mains" || one.kind === "bridge")),
  );

/** Transistors whose source still has its way to ground, a standby switch, what lies across the mains, and bulks that conduct. */
export function isPrimaryShorted(scenario: Scenario): boolean {
  const hot = new Set(scenario.nets.filter((net) => sectionFacts[net.section].isMainsSide).map((net) => net.name));
  const isShuntOpen = (role: ScenarioRole | undefined) =>
    scenario.devices.some(
      (one) => isShunt(one) && one.condition === "open" && (role === undefined || one.role === role),
    );
  const isShorted = scenario.devices.some((one) => {
    if (one.condition !== "shorted") return false;
    switch (one.kind) {
      case "transistor":
        return one.role !== "synchronous" && !isShuntOpen(one.role);
      case "ic":
        return one.role === "standby";
      case "varistor":
      case "film":
        return isAcrossMains(one);
      default:
        return one.kind === "bridge";
    }
  });
  const bulk = scenario.capacitors.some(
    (part) => hot.has(part.net) && part.net !== scenario.control.net && leakOhmsOf(part) < 200,
  );
  // Driven hard on by a dead chip, or into a shorted boost diode, a good transistor is as good as a short.
  const isForced = (role: ScenarioRole | undefined, by: (one: ScenarioDevice) => boolean) =>
    scenario.devices.some((one) => one.kind === "transistor" && one.role === role && one.condition === "good") &&
    scenario.devices.some((one) => by(one) && one.condition === "shorted");
  const isDriven =
    isForced(undefined, (one) => one.kind === "ic" && isMain(one)) ||
    isForced("main", (one) => one.kind === "ic" && isMain(one)) ||
    isForced("boost", (one) => one.kind === "diode" && one.role === "boost");
  return isShorted || bulk || isDriven;
}

/** Whether transistor, shunt, gate parts and control IC of the main converter are all there. */
export const canSwitch = (scenario: Scenario) =>
  !scenario.devices.some(
    (one) =>
      one.condition !== "good" &&
      ((isMain(one) && (one.kind === "transistor" || one.kind === "ic" || isShunt(one))) || isOf("gate")(one)),
  );

/** Whether the boost stage raises its bulk. */
export const isBoosting = (scenario: Scenario) =>
  scenario.pfcVolts != null && !scenario.devices.some((one) => one.role === "boost" && one.condition !== "good");

/** A standby converter of its own, and whether it works. */
export const standbyOf = (scenario: Scenario): { readonly isThere: boolean; readonly isGood: boolean } => {
  const own = scenario.devices.filter((one) => one.role === "standby" && one.kind === "ic");
  return { isThere: own.length > 0, isGood: own.every((one) => one.condition === "good") };
};

/** Start-up resistor open: the control supply never climbs. */
export const isStartOpen = (scenario: Scenario) =>
  scenario.devices.some((one) => one.role === "start" && one.condition === "open");

/** What hangs on a node of its control supply beside the chip: glue, or a capacitor that leaks. */
export function controlLeakAmps(scenario: Scenario): number {
  const { net, startVolts } = scenario.control;
  const leaks = scenario.capacitors.filter((part) => part.net === net).map(leakOhmsOf);
  const bridges = scenario.devices
    .filter((one) => one.role === "glue" && one.condition === "good")
    .filter((one) => Object.values(one.pins).includes(net) && Object.values(one.pins).includes(hotGround))
    .map((one) => one.ohms ?? Number.POSITIVE_INFINITY);
  return [...leaks, ...bridges].reduce((sum, ohms) => sum + startVolts / ohms, 0);
}

/** A rectifier or transistor at an output that conducts both ways, or what lies across an output and conducts. */
export function hasShortedOutput(scenario: Scenario, isCounted: (netName: string) => boolean = () => true): boolean {
  const cold = scenario.nets.filter((net) => !sectionFacts[net.section].isMainsSide && isCounted(net.name));
  const names = new Set(cold.map((net) => net.name));
  const isAt = (one: ScenarioDevice) => Object.values(one.pins).some((node) => names.has(node));
  const isDevice = scenario.devices.some(
    (one) =>
      one.condition === "shorted" &&
      isAt(one) &&
      (one.kind === "schottky" ||
        one.role === "synchronous" ||
        (one.kind === "film" && Object.values(one.pins).includes(coldGround))),
  );
  return isDevice || scenario.capacitors.some((part) => names.has(part.net) && leakOhmsOf(part) < 2);
}

/** An output whose rectifier is open has nothing. */
export const isRectifierOpen = (scenario: Scenario, netName: string) =>
  scenario.devices.some((one) => one.kind === "schottky" && one.condition === "open" && one.pins.K === netName);

/** By how much the outputs stand beside what they should: the coupler tells too little, or too much. */
export function regulationRatio(scenario: Scenario, isStandby: boolean): number {
  const couplers = scenario.devices.filter(
    (one) => one.kind === "optocoupler" && (one.role === "standby") === isStandby,
  );
  if (couplers.some((one) => one.condition === "open")) return 1.35;
  if (couplers.some((one) => one.condition === "shorted")) return 0.6;
  return 1;
}
