import type { CatalogueComponent, ComponentKind, ComponentRatings } from "@pale-cap/core";
import { uuidFrom } from "./generateCatalogue";

const makers = ["Kelpin", "Ostrel", "Dunmarrow", "Vessin", "Quarrel"] as const;

/** Every pair of two lists. */
const pairs = <A, B>(a: readonly A[], b: readonly B[]): [A, B][] =>
  a.flatMap((one) => b.map((two): [A, B] => [one, two]));

interface Line {
  readonly kind: ComponentKind;
  readonly code: string;
  readonly ratings: ComponentRatings;
  readonly priceMinor: number;
}

/** Some three hundred invented parts that are no electrolytics: their ratings hang together as those of real ones do. */
export function generateComponents(random: () => number): CatalogueComponent[] {
  return lines().map(({ kind, code, ratings, priceMinor }) => {
    const maker = makers[Math.floor(random() * makers.length)] as string;
    return {
      id: uuidFrom(random),
      kind,
      maker,
      typeNumber: `${maker.slice(0, 2).toUpperCase()}${code}`,
      ratings,
      priceMinor,
    };
  });
}

function lines(): readonly Line[] {
  return [
    ...pairs([500, 600, 650, 800, 900], [2, 4, 7, 10, 13, 20]).flatMap(([volts, amps]) =>
      (["insulated", "bare"] as const).map(
        (tab): Line => ({
          kind: "transistor",
          code: `${amps}N${volts / 10}${tab === "insulated" ? "F" : ""}`,
          ratings: {
            ...{ channel: "n", ratedVolts: volts, ratedAmps: amps, tab, package: amps > 13 ? "TO-247" : "TO-220" },
            // On-resistance falls with the amperes and rises with the volts; charge goes the other way.
            onOhms: Number(((7 / amps) * (volts / 600) ** 2.3).toPrecision(2)),
            gateChargeCoulombs: Number((5.5e-9 * amps * (volts / 600) ** 0.5).toPrecision(2)),
            recoverySeconds: Number((3.2e-7 + 8e-9 * amps).toPrecision(2)),
          },
          priceMinor: Math.round(60 + 14 * amps + volts / 12),
        }),
      ),
    ),
    ...pairs([200, 400, 600, 1000], [1, 2, 3, 5, 8]).flatMap(([volts, amps]) =>
      [35e-9, 75e-9, 500e-9].map(
        (recoverySeconds, n): Line => ({
          kind: "diode",
          code: `${["U", "F", "R"][n]}${amps}${volts / 100}`,
          ratings: {
            ...{ ratedVolts: volts, ratedAmps: amps, recoverySeconds, surgeAmps: 30 * amps },
            package: amps > 3 ? "TO-220AC" : amps > 1 ? "DO-201" : "DO-41",
          },
          priceMinor: Math.round(6 + 5 * amps + 12 / (n + 1)),
        }),
      ),
    ),
    ...pairs([600, 800, 1000], [2, 4, 6, 8, 15]).map(
      ([volts, amps]): Line => ({
        kind: "bridge",
        code: `B${amps}${volts / 100}`,
        ratings: { ratedVolts: volts, ratedAmps: amps, surgeAmps: 25 * amps + 40, pinout: "+ ~ ~ -" },
        priceMinor: 30 + 9 * amps,
      }),
    ),
    ...pairs([45, 60, 100, 150, 200], [5, 10, 20, 30]).map(
      ([volts, amps]): Line => ({
        kind: "rectifier",
        code: `D${amps}S${volts}`,
        ratings: {
          ...{ ratedVolts: volts, ratedAmps: amps, forwardVolts: Number((0.5 + volts / 600).toFixed(2)) },
          ...{ pinout: "a k a", package: amps > 20 ? "TO-247" : "TO-220" },
        },
        priceMinor: 35 + 4 * amps,
      }),
    ),
    ...pairs([0.5, 1, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8, 10], ["time-lag", "fast"] as const).flatMap(([amps, speed]) =>
      [35, 1500].map(
        (breakingAmps): Line => ({
          kind: "fuse",
          code: `${speed === "fast" ? "F" : "T"}${amps}${breakingAmps > 100 ? "H" : "L"}`,
          ratings: { ratedAmps: amps, speed, breakingAmps, ratedVolts: 250, size: "5x20" },
          priceMinor: breakingAmps > 100 ? 28 : 14,
        }),
      ),
    ),
    ...pairs([2.5, 5, 8, 10, 16], [9, 13, 15]).map(
      ([coldOhms, millimetres]): Line => ({
        kind: "ntc",
        code: `N${coldOhms}-${millimetres}`,
        ratings: {
          ...{ coldOhms, steadyAmps: Number((millimetres / 2.2 / Math.sqrt(coldOhms / 5)).toPrecision(2)) },
          ...{ joules: { 9: 20, 13: 45, 15: 65 }[millimetres] ?? null, sizeMetres: millimetres / 1e3 },
        },
        priceMinor: 25 + 3 * millimetres,
      }),
    ),
    ...pairs([250, 275, 300, 320, 420], [7, 10, 14, 20]).map(
      ([volts, millimetres]): Line => ({
        kind: "varistor",
        code: `V${volts}-${millimetres}`,
        ratings: {
          ...{ ratedVolts: volts, surgeAmps: { 7: 1200, 10: 2500, 14: 4500, 20: 6500 }[millimetres] ?? null },
          ...{ joules: Math.round((millimetres ** 2 * volts) / 900), sizeMetres: millimetres / 1e3 },
        },
        priceMinor: 12 + 2 * millimetres,
      }),
    ),
    ...pairs([0.1, 0.15, 0.22, 0.33, 0.47], [1, 2, 3]).map(
      ([ohms, watts]): Line => ({
        kind: "shunt",
        code: `S${ohms}W${watts}`,
        ratings: { ohms, watts, toleranceRatio: 0.01 },
        priceMinor: 10 + 6 * watts,
      }),
    ),
    ...pairs([2.2, 4.7, 10, 22, 47, 100], [1, 2, 3]).map(
      ([ohms, watts]): Line => ({
        kind: "fusible_resistor",
        code: `Z${ohms}W${watts}`,
        ratings: { ohms, watts, fusible: "yes" },
        priceMinor: 9 + 4 * watts,
      }),
    ),
    ...pairs([100e-9, 150e-9, 220e-9, 330e-9, 470e-9, 1e-6], ["X1", "X2"] as const).map(
      ([capacitanceFarads, safetyClass]): Line => ({
        kind: "x_capacitor",
        code: `X${Math.round(capacitanceFarads * 1e9)}${safetyClass}`,
        ratings: {
          ...{ safetyClass, capacitanceFarads, ratedVolts: safetyClass === "X1" ? 310 : 275 },
          pitchMetres: capacitanceFarads > 4e-7 ? 0.0225 : 0.015,
        },
        priceMinor: Math.round(20 + capacitanceFarads * 5e7),
      }),
    ),
    ...pairs([470e-12, 1e-9, 2.2e-9, 3.3e-9, 4.7e-9], ["Y1", "Y2"] as const).map(
      ([capacitanceFarads, safetyClass]): Line => ({
        kind: "y_capacitor",
        code: `Y${Math.round(capacitanceFarads * 1e12)}${safetyClass}`,
        ratings: { safetyClass, capacitanceFarads, ratedVolts: safetyClass === "Y1" ? 400 : 300, pitchMetres: 0.01 },
        priceMinor: safetyClass === "Y1" ? 16 : 10,
      }),
    ),
    ...pairs([0.5, 0.8, 1, 1.3, 2], [5000, 5300]).map(
      ([transferRatioMin, isolationVolts]): Line => ({
        kind: "optocoupler",
        code: `O${transferRatioMin * 100}${isolationVolts === 5300 ? "W" : ""}`,
        ratings: {
          ...{ isolationVolts, creepageMetres: isolationVolts === 5300 ? 8e-3 : 6.5e-3, transferRatioMin },
          ...{ transferRatioMax: Number((2 * transferRatioMin).toFixed(2)), pinout: "a k e c" },
        },
        priceMinor: 18,
      }),
    ),
    ...pairs([3.3, 5, 8, 9, 12, 15], [0.5, 1, 1.5]).map(
      ([outputVolts, ratedAmps]): Line => ({
        kind: "regulator",
        code: `L${outputVolts}-${ratedAmps}`,
        ratings: { outputVolts, ratedAmps, dropoutVolts: ratedAmps > 1 ? 2 : 1.7, pinout: "in gnd out" },
        priceMinor: 30,
      }),
    ),
    ...pairs([65e3, 100e3, 132e3], ["A", "B", "C"] as const).map(
      ([frequencyHertz, pinout], n): Line => ({
        kind: "control_ic",
        code: `C${frequencyHertz / 1e3}${pinout}`,
        ratings: {
          pinout: `8 pins, ${pinout}`,
          startVolts: 14 + (n % 3),
          stopVolts: 8 + (n % 2),
          frequencyHertz,
          senseVolts: 0.9,
        },
        priceMinor: 85,
      }),
    ),
    ...pairs([5, 12, 24], [40, 60, 80]).map(
      ([ratedVolts, millimetres]): Line => ({
        kind: "fan",
        code: `A${millimetres}-${ratedVolts}`,
        ratings: {
          ...{
            ratedVolts,
            sizeMetres: millimetres / 1e3,
            airflow: Math.round(millimetres ** 2 / 120),
            connector: "2 pins",
          },
          ratedAmps: Number((millimetres / 40 / ratedVolts).toPrecision(2)),
        },
        priceMinor: 300 + 4 * millimetres,
      }),
    ),
  ];
}
