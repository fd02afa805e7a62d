import type { Scenario, ScenarioDevice } from "@pale-cap/contract";
import type { CircuitBranch } from "@pale-cap/core";
import { groundOf, nodesOfCapacitor, type ProbePoints } from "./probePoints";
import { truePart } from "./truePart";

/** What a shorted junction or winding still has. */
const shortOhms = 0.08;
/** A contact that is made, and what a sound film or varistor has. */
const [contactOhms, insulationOhms] = [0.03, 50e6];
const silicon = 0.52;
const schottky = 0.18;

/**
 * The board without power as a network of branches. A part that is lifted or out stands alone between the probes; all
 * others stay where they are.
 */
export function coldNetwork(
  scenario: Scenario,
  points: ProbePoints | null,
  temperatureOf: (designator: string) => number,
  frequencyHertz: number,
  openSpots: ReadonlySet<string> = new Set(),
): readonly CircuitBranch[] {
  const can = (part: Scenario["capacitors"][number]): CircuitBranch => {
    const [from, to] = nodesOfCapacitor(scenario, part);
    return {
      ...{ kind: "capacitor", from, to },
      ...truePart(part, temperatureOf(part.at), Math.max(frequencyHertz, 100)),
    };
  };
  const alone = points?.capacitor && points.state !== "IN" ? points.capacitor : null;
  if (alone) return [can(alone)];
  const loads = scenario.nets.flatMap((net): CircuitBranch[] =>
    net.boardOhms == null
      ? []
      : [{ kind: "resistor", from: net.name, to: groundOf(scenario, net.name), ohms: net.boardOhms }],
  );
  return [
    ...scenario.capacitors.map(can),
    ...loads,
    ...scenario.devices.filter((one) => !openSpots.has(one.at)).flatMap(branchesOf),
  ];
}

/** A device as branches; an open one is none, a shorted one is a short between its pins. */
function branchesOf(device: ScenarioDevice): readonly CircuitBranch[] {
  const { pins, condition } = device;
  const resistor = (from: string | undefined, to: string | undefined, ohms: number): CircuitBranch[] =>
    from && to ? [{ kind: "resistor", from, to, ohms }] : [];
  const diode = (from: string | undefined, to: string | undefined, forwardVolts: number): CircuitBranch[] =>
    from && to ? [{ kind: "diode", from, to, forwardVolts }] : [];
  // A regulator's switch stays on: what feeds it comes through, its output is no short.
  if (condition === "shorted" && device.kind === "regulator") return resistor(pins.VCC, pins.OUT, shortOhms);
  if (condition === "shorted") {
    const [first, ...others] = Object.values(pins);
    return others.flatMap((other) => resistor(first, other, shortOhms));
  }
  if (condition === "open" && device.kind !== "bridge" && device.kind !== "optocoupler") return [];
  switch (device.kind) {
    case "fuse":
      return resistor(pins["1"], pins["2"], 0.05);
    case "ntc":
      return resistor(pins["1"], pins["2"], device.ohms ?? 8);
    case "resistor":
      return resistor(pins["1"], pins["2"], device.ohms ?? 1000);
    case "choke":
      return windings(device);
    case "regulator":
      return resistor(pins.OUT, pins.GND, device.ohms ?? 20e3);
    case "connector":
      return resistor(pins["1"], pins["2"], contactOhms);
    case "varistor":
    case "film":
      return resistor(pins["1"], pins["2"], insulationOhms);
    case "bridge": {
      const { L, N } = pins;
      const [plus, minus] = [pins["+"], pins["-"]];
      // An open bridge has lost one of its four.
      const last = condition === "open" ? [] : diode(minus, N, silicon);
      return [...diode(L, plus, silicon), ...diode(N, plus, silicon), ...diode(minus, L, silicon), ...last];
    }
    case "diode":
      return diode(pins.A, pins.K, silicon);
    case "schottky":
      return diode(pins.A, pins.K, schottky);
    case "transistor":
      return [...diode(pins.S, pins.D, silicon), ...resistor(pins.G, pins.S, device.ohms ?? 10e3)];
    case "ic":
      return resistor(pins.VCC, pins.GND, device.ohms ?? 60e3);
    case "optocoupler":
      return condition === "open" ? [] : diode(pins.A, pins.K, 1.05);
  }
}

/** Pins in pairs are windings: the first has the values, the others of a transformer a tenth of its turns. */
function windings({ pins, henrys, ohms }: ScenarioDevice): readonly CircuitBranch[] {
  return ["1", "3", "5"].flatMap((first): CircuitBranch[] => {
    const [from, to] = [pins[first], pins[String(Number(first) + 1)]];
    if (!from || !to) return [];
    const isFirst = first === "1";
    return [
      {
        kind: "choke",
        from,
        to,
        henrys: (henrys ?? 4.7e-6) / (isFirst ? 1 : 100),
        ohms: (ohms ?? 0.02) / (isFirst ? 1 : 10),
      },
    ];
  });
}
