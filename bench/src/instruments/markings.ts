import type { Scenario, ScenarioDeviceKind } from "@pale-cap/contract";
import type { PartEntry, PartKind } from "@pale-cap/core";

export const partKindOf: Readonly<Record<ScenarioDeviceKind, PartKind>> = {
  fuse: "fuse",
  ntc: "ntc",
  bridge: "bridge",
  diode: "diode",
  schottky: "diode",
  transistor: "transistor",
  resistor: "resistor",
  choke: "choke",
  ic: "ic",
  optocoupler: "optocoupler",
  varistor: "varistor",
  film: "film",
  connector: "connector",
  regulator: "regulator",
};

/** What can be read on the board of a scenario: its markings and places, nothing of its truth. */
export function markings(scenario: Scenario): readonly PartEntry[] {
  const blank = {
    capacitanceFarads: null,
    toleranceRatio: null,
    ratedVolts: null,
    temperatureClassCelsius: null,
    capacitorClass: null,
  };
  const cans = scenario.capacitors.map((part): PartEntry => {
    const [microfarads = null, ratedVolts = null, celsius = null] = part.marking;
    const [diameter = 0, height = 0, pitch = 0] = part.can;
    const net = scenario.nets.find((one) => one.name === part.net);
    return {
      ...blank,
      designators: [part.at],
      kind: "electrolytic",
      section: net?.section ?? null,
      railName: part.net,
      capacitanceFarads: microfarads === null ? null : microfarads / 1e6,
      ratedVolts,
      temperatureClassCelsius: celsius,
      capacitorClass: part.capacitorClass,
      diameterMetres: diameter / 1e3,
      heightMetres: height / 1e3,
      pitchMetres: pitch / 1e3,
      xMetres: (part.place[0] ?? 0) / 1e3,
      yMetres: (part.place[1] ?? 0) / 1e3,
      stripeDegrees: 90,
      isNonPolar: null,
      series: null,
    };
  });
  const others = scenario.devices.map(
    (device): PartEntry => ({
      ...blank,
      designators: [device.at],
      kind: partKindOf[device.kind],
      section: null,
      railName: null,
      diameterMetres: (device.outline[0] ?? 0) / 1e3,
      heightMetres: (device.outline[1] ?? 0) / 1e3,
      pitchMetres: null,
      xMetres: (device.place[0] ?? 0) / 1e3,
      yMetres: (device.place[1] ?? 0) / 1e3,
      stripeDegrees: null,
      isNonPolar: null,
      series: null,
    }),
  );
  return [...cans, ...others];
}
