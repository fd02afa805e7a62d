import { describe, expect, it } from "vitest";
import { partKinds } from "../board/board";
import { type CatalogueComponent, type ComponentRatings, compareComponents, rankComponents } from "./compareComponents";
import { componentKinds, componentKindsOf, componentRatings, ratingNames } from "./componentRatings";

const transistor: ComponentRatings = {
  ...{ channel: "n", ratedVolts: 600, ratedAmps: 7, onOhms: 1.2, gateChargeCoulombs: 40e-9, recoverySeconds: 400e-9 },
  ...{ package: "TO-220", tab: "insulated" },
};
const fuse: ComponentRatings = {
  ratedAmps: 3.15,
  speed: "time-lag",
  breakingAmps: 1500,
  ratedVolts: 250,
  size: "5x20",
};
const of = (kind: Parameters<typeof compareComponents>[0], before: ComponentRatings) => (more: ComponentRatings) =>
  compareComponents(kind, before, { ...before, ...more });
const verdicts = (found: ReturnType<typeof compareComponents>) =>
  found.ratings.filter((one) => one.verdict !== "meets").map((one) => `${one.rating.name} ${one.verdict}`);

describe("a transistor beside the old one", () => {
  const beside = of("transistor", transistor);
  it("fits with equal or better ratings", () => {
    expect(beside({}).verdict).toBe("fits");
    const better = beside({ ratedVolts: 650, ratedAmps: 9, onOhms: 0.8, gateChargeCoulombs: 48e-9, package: "to-220" });
    expect(better.verdict).toBe("fits");
  });
  it("is taken with a reason where it is slower, weaker or in another case, and never below its volts", () => {
    expect(verdicts(beside({ gateChargeCoulombs: 49e-9 }))).toEqual(["gateChargeCoulombs worse"]);
    expect(verdicts(beside({ ratedAmps: 6.9, onOhms: 1.21 }))).toEqual(["ratedAmps worse", "onOhms worse"]);
    expect(beside({ package: "TO-247" }).verdict).toBe("with_reason");
    expect(beside({ ratedVolts: 599 }).verdict).toBe("never");
    expect(beside({ channel: "p" }).verdict).toBe("never");
    // A bare tab puts the drain onto the sink; an insulated one where a bare stood does no harm.
    expect(beside({ tab: "bare" }).verdict).toBe("never");
    expect(compareComponents("transistor", { ...transistor, tab: "bare" }, transistor).verdict).toBe("fits");
  });
  it("says nothing of what is not known", () => {
    expect(verdicts(beside({ recoverySeconds: null }))).toEqual(["recoverySeconds new_not_known"]);
    expect(beside({ recoverySeconds: null }).verdict).toBe("with_reason");
    expect(beside({ ratedVolts: null }).verdict).toBe("cannot_tell");
    expect(compareComponents("transistor", { ...transistor, ratedVolts: null }, transistor).verdict).toBe(
      "cannot_tell",
    );
    // What is refused stays refused, whatever else is open.
    expect(beside({ ratedVolts: null, channel: "p" }).verdict).toBe("never");
  });
});

describe("parts that protect", () => {
  it("are the same fuse, with at least its breaking capacity", () => {
    const beside = of("fuse", fuse);
    expect(beside({ breakingAmps: 3000 }).verdict).toBe("fits");
    for (const more of [
      { ratedAmps: 4 },
      { ratedAmps: 2.5 },
      { speed: "fast" },
      { breakingAmps: 35 },
      { ratedVolts: 125 },
    ]) {
      expect(beside(more).verdict).toBe("never");
    }
  });
  it("are X and Y capacitors of the same class or better, and never more of a Y", () => {
    const y = { safetyClass: "Y2", capacitanceFarads: 2.2e-9, ratedVolts: 250, pitchMetres: 0.01 };
    const beside = of("y_capacitor", y);
    expect(beside({ safetyClass: "Y1" }).verdict).toBe("fits");
    expect(beside({ safetyClass: "Y4" }).verdict).toBe("never");
    expect(beside({ safetyClass: "X1" }).verdict).toBe("never");
    expect(beside({ capacitanceFarads: 2.3e-9 }).verdict).toBe("never");
    expect(beside({ capacitanceFarads: 1e-9 }).verdict).toBe("fits");
    const x = { safetyClass: "X2", capacitanceFarads: 220e-9, ratedVolts: 275, pitchMetres: 0.015 };
    expect(of("x_capacitor", x)({ capacitanceFarads: 250e-9 }).verdict).toBe("with_reason");
    expect(of("x_capacitor", x)({ safetyClass: "X3" }).verdict).toBe("never");
  });
  it("are a fusible resistor of the same watts: a stronger one does not open when it should", () => {
    const beside = of("fusible_resistor", { ohms: 10, watts: 2, fusible: "yes" });
    expect([beside({ watts: 3 }).verdict, beside({ fusible: "no" }).verdict]).toEqual(["never", "never"]);
    expect(beside({ ohms: 10.4 }).verdict).toBe("fits");
  });
});

describe("the list", () => {
  const component = (id: string, more: ComponentRatings, priceMinor = 50): CatalogueComponent => ({
    ...{ id, kind: "transistor", maker: "Marlin", typeNumber: id, ratings: { ...transistor, ...more }, priceMinor },
  });
  it("puts first what fits, then what lacks least, then what costs least", () => {
    const list = [
      component("never", { channel: "p" }),
      component("two", { onOhms: 2, ratedAmps: 5 }),
      component("one", { onOhms: 2 }),
      component("dear", {}, 90),
      component("cheap", {}, 20),
      component("open", { ratedVolts: null }),
      { ...component("other", {}), kind: "diode" as const },
    ];
    expect(rankComponents("transistor", transistor, list).map((one) => one.component.id)).toEqual([
      ...["cheap", "dear", "one", "two", "open", "never"],
    ]);
  });
  it("knows what matters of every kind, each rating once and by a known name", () => {
    for (const kind of componentKinds) {
      const names = componentRatings[kind].map((one) => one.name);
      expect(new Set(names).size).toBe(names.length);
      expect(names.every((one) => ratingNames.includes(one))).toBe(true);
      expect(componentRatings[kind].some((one) => one.isHard) || kind === "ntc").toBe(true);
    }
    const held = new Set(partKinds.flatMap((kind) => componentKindsOf(kind)));
    expect(componentKinds.filter((kind) => !held.has(kind))).toEqual([]);
    expect(componentKindsOf("electrolytic")).toEqual([]);
  });
});
