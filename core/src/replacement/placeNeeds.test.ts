import { describe, expect, it } from "vitest";
import {
  sampleJob,
  sampleNet,
  samplePart,
  samplePosition,
  sampleRailReading,
  sampleReading,
  sampleRules,
} from "../../testing/sampleJob";
import type { BoardNet, BoardPosition } from "../board/board";
import { unknownConverter } from "../board/converterDescription";
import type { JobFacts } from "../facts/jobFacts";
import { impliedAmbientCelsius } from "../life/impliedAmbient";
import type { Purpose } from "../life/missionProfile";
import { bulkWindow, inrushNote } from "./bulkWindow";
import { esrLimits } from "./esrLimits";
import { leastLoopEsrOhms, loopChange } from "./loopPhase";
import { placeRoom } from "./placeRoom";
import { noOverrides, type RequirementOverrides, replacementRequirement } from "./requirement";
import { rippleNeed } from "./rippleNeed";
import type { Surroundings } from "./surroundings";

const around = (facts: Partial<JobFacts>, more: Partial<Surroundings> = {}): Surroundings => ({
  facts: sampleJob({ readings: [], ...facts }),
  chosen: new Map(),
  emptyIds: new Set(),
  lid: null,
  rail: sampleRules.rail,
  mainsHertz: 50,
  ...more,
});
/** A discontinuous flyback of 2 A whose secondary current falls for two fifths of the period: 3.06 A into its bank. */
const converter = {
  ...unknownConverter("flyback_discontinuous"),
  switchingHertz: 65e3,
  dutyRatio: 0.4,
  riseSeconds: 0,
};
const flyback = sampleNet({ fullLoadAmps: 2, converter });
const two = { nets: [flyback], positions: [samplePosition("C1"), samplePosition("C2")] };
const alike = { ...two, fittedParts: [samplePart("C1"), samplePart("C2")] };

describe("the capacitance of a control supply", () => {
  const window = (microfarads: number, section: BoardNet["section"] = "vcc") => {
    const net = sampleNet({ section, nominalVolts: 14, fullLoadAmps: null });
    const part = samplePart("C1", { capacitanceFarads: microfarads * 1e-6, ratedVolts: 50 });
    const place = { position: samplePosition("C1"), part, net, voltageSchool: "both" } as const;
    const question = { ...place, around: around({ nets: [net], positions: [place.position], fittedParts: [part] }) };
    const need = replacementRequirement(question, noOverrides);
    const limit = (one: { value: number; source: string } | undefined) =>
      one && [Number((one.value * 1e6).toFixed(1)), one.source];
    return [limit(need?.capacitanceMinFarads), limit(need?.capacitanceMaxFarads)];
  };
  it("carries the IC until its winding does, and lets it start in time", () => {
    // 5 mA for 15 ms over 7 V: 10.7 uF, more than 11 uF less its tolerance. 292.7 V less 30 V through 1 Mohm: 16 V after 62.9 ms a uF.
    const [least, most] = window(11);
    expect(least).toEqual([10.7, "take_over"]);
    expect(most?.[1]).toBe("position_table");
    const large = window(40);
    expect(large[0]?.[1]).toBe("position_table");
    expect(large[1]).toEqual([47.7, "start_time"]);
  });
  it("is not asked what the old part itself does not meet, nor elsewhere", () => {
    expect(window(4.7)[0]?.[1]).toBe("position_table");
    expect(window(100)[1]?.[1]).toBe("position_table");
    expect(window(11, "output")[0]?.[1]).toBe("position_table");
  });
});

describe("the ripple current of a place", () => {
  const need = (facts: Partial<JobFacts>, net: BoardNet = flyback, more: Partial<Surroundings> = {}) =>
    rippleNeed(samplePosition("C1", { netId: net.id }), net, around(facts, more));
  it("is its share of what the converter drives into the bank, and no assumption where everything is known", () => {
    expect(need(alike)?.ampsRms).toBeCloseTo(3.055 / 2, 1);
    expect(need(alike)?.assumed).toEqual([]);
    const beside = new Map([["at-C2", { capacitanceFarads: 560e-6, esrOhms: 0.012, ratedRippleAmpsRms: 4 }]]);
    // Beside one of a quarter of its ESR it takes far less than half; what both have in inductance evens the edges out.
    const part = (need(alike, flyback, { chosen: beside })?.ampsRms ?? 0) / 3.055;
    expect([part > 0.2, part < 0.36]).toEqual([true, true]);
  });
  it("counts a dried neighbour as renewed", () => {
    const dried = { ...alike, readings: [sampleReading("C2", { value: 5 })] };
    expect(need(dried)?.ampsRms).toBeCloseTo(need(alike)?.ampsRms ?? 0, 9);
  });
  it("has a band over what had to be assumed, and is not there while nothing was promised", () => {
    const unknown = sampleNet({ fullLoadAmps: 2, converter: { ...converter, dutyRatio: null } });
    const found = need({ ...alike, nets: [unknown] }, unknown);
    expect(found?.assumed).toEqual(["dutyRatio"]);
    expect(found && found.lowAmpsRms < found.ampsRms && found.ampsRms < found.highAmpsRms).toBe(true);
    expect(need(alike, { ...flyback, fullLoadAmps: null })).toBeNull();
    const impossible = { ...flyback, converter: { ...unknownConverter("buck"), inputVolts: 5 } };
    expect(need({ ...alike, nets: [impossible] }, impossible)).toBeNull();
  });
  it("has two parts at a bulk: twice the mains and the switching", () => {
    const bulk = sampleNet({ id: "bulk", section: "bulk", nominalVolts: null, fullLoadAmps: null });
    const part = samplePart("C1", { capacitanceFarads: 100e-6, ratedVolts: 400, capacitorClass: "gp" });
    const positions = [samplePosition("C1", { netId: "bulk" })];
    const found = need({ nets: [bulk, flyback], positions, fittedParts: [part] }, bulk);
    expect(found?.twoParts?.twiceMainsAmpsRms).toBeGreaterThan(0.1);
    expect(found?.twoParts?.switchingAmpsRms).toBeGreaterThan(0.05);
    expect(found && found.highAmpsRms > found.ampsRms).toBe(true);
    expect(need({ nets: [bulk], positions, fittedParts: [part] }, bulk)).toBeNull();
  });
});

describe("what a regulation bears", () => {
  it("loses phase by a smaller ESR: 45 to 12 degrees at 5 kHz is refused, and a choke behind rings", () => {
    const fed = { switchingHertz: 75e3, isIsolated: true };
    const old = { esrOhms: 0.032, capacitanceFarads: 1000e-6 };
    const found = loopChange(old, { esrOhms: 0.012, capacitanceFarads: 560e-6 }, fed, 3.3e-6);
    expect([found.oldDegrees, found.newDegrees].map((one) => Number(one.toFixed(1)))).toEqual([45.2, 11.9]);
    expect(found.q).toBeCloseTo(6.4, 1);
    expect(found.verdict).toBe("reject");
    const mild = loopChange(old, { esrOhms: 0.02, capacitanceFarads: 1000e-6 }, fed);
    expect([mild.lostDegrees > 12, mild.verdict]).toEqual([true, "ok"]);
    expect(loopChange(old, { esrOhms: 0.016, capacitanceFarads: 1000e-6 }, fed).verdict).toBe("warn");
    expect(loopChange(old, old, { ...fed, crossoverHertz: 1000 }).isCrossoverAssumed).toBe(false);
  });
  it("has a least ESR at which just so much is lost", () => {
    const fed = { switchingHertz: 75e3, isIsolated: true };
    const old = { esrOhms: 0.032, capacitanceFarads: 1000e-6 };
    const least = leastLoopEsrOhms(old, 1000e-6, fed);
    expect(loopChange(old, { esrOhms: least, capacitanceFarads: 1000e-6 }, fed).lostDegrees).toBeCloseTo(30, 6);
    expect(leastLoopEsrOhms(old, 1000e-6, fed, 3.3e-6)).toBeCloseTo(Math.sqrt(3.3e-6 / 1000e-6) / 3, 9);
    expect(leastLoopEsrOhms({ esrOhms: 0.001, capacitanceFarads: 100e-6 }, 100e-6, fed)).toBe(0);
  });
  it("is a window of its own behind a linear regulator", () => {
    const net = sampleNet({ section: "linear-regulator" });
    expect(esrLimits(samplePosition("C1"), samplePart("C1"), net, null)).toMatchObject({
      leastOhms: 0.05,
      leastBy: "linear",
    });
  });
});

describe("the ESR that a place may have", () => {
  const limits = (facts: Partial<JobFacts>, net: BoardNet = flyback) =>
    esrLimits(samplePosition("C1"), samplePart("C1"), net, around(facts));
  it("ends a quarter above the old catalogue maximum, or where the rail's ripple ends, for this place beside the others", () => {
    const loose = { ...flyback, rippleLimitVolts: 1 };
    const wide = limits({ ...alike, nets: [loose] }, loose);
    expect(wide.mostBy).toBe("old_part");
    expect(wide.mostOhms).toBeCloseTo(1.25 * 0.046, 3);
    // 10 A x R = 0.22 V less what C leaves: some 21 milliohm for the bank, for one beside another of 32 about 60 and less than a quarter above 46.
    const strict = { ...flyback, rippleLimitVolts: 0.205 };
    const found = limits({ ...alike, nets: [strict] }, strict);
    expect(found).toMatchObject({ mostBy: "ripple", isOldOver: false });
    expect(found.mostOhms).toBeGreaterThan(0.046);
    expect(found.mostOhms).toBeLessThan(1.25 * 0.046);
    // Where even the old part as new is over the limit its own ESR stands: what was assumed is off.
    const tight = { ...flyback, rippleLimitVolts: 0.05 };
    const own = limits({ ...alike, nets: [tight] }, tight);
    expect(own.isOldOver).toBe(true);
    expect(own.mostOhms).toBeCloseTo(0.046, 3);
  });
  it("is judged by the bank as new, never by a reading", () => {
    const dried = { ...alike, readings: [sampleReading("C1", { value: 5 }), sampleReading("C2", { value: 5 })] };
    expect(limits(dried)).toEqual(limits(alike));
  });
  it("is never empty by itself, and says what would open it where both ends were set by hand", () => {
    const opens = (more: Partial<RequirementOverrides>) =>
      replacementRequirement(
        {
          ...{ position: samplePosition("C1"), part: samplePart("C1"), net: flyback, voltageSchool: "both" },
          around: around(alike),
        },
        { ...noOverrides, ...more },
      )?.esrOpens;
    expect(opens({})).toEqual([]);
    expect(opens({ esrMinOhms: 0.2 })).toContain("load_step_test");
  });
});

describe("the room of a place", () => {
  const at = (designator: string, xMetres: number, more: Partial<BoardPosition> = {}) =>
    samplePosition(designator, { xMetres, yMetres: 0.02, ...more });
  const room = (positions: readonly BoardPosition[], more: Partial<Surroundings> = {}) =>
    placeRoom(at("C1", 0.02), around({ positions, fittedParts: [samplePart("C2")] }, more));
  it("clears what stays: a neighbour's can by half a millimetre, a sink by five", () => {
    // 16 mm apart, its neighbour 5 mm in radius: 10.5 mm less the clearance.
    expect(room([at("C1", 0.02), at("C2", 0.036)])).toMatchObject({ nextToId: "at-C2" });
    expect(room([at("C1", 0.02), at("C2", 0.036)]).diameterMaxMetres).toBeCloseTo(0.021, 9);
    const sink = at("HS1", 0.036, { kind: "heat-sink", outlineWidthMetres: 0.004, outlineDepthMetres: 0.03 });
    expect(room([at("C1", 0.02), sink]).diameterMaxMetres).toBeCloseTo(0.018, 9);
    expect(room([at("C1", 0.02), at("C2", 0.036)], { emptyIds: new Set(["at-C2"]) }).diameterMaxMetres).toBeNull();
  });
  it("ends under the lid, with room for the vent", () => {
    const lid = { lidHeightMetres: 0.03, lidZones: [] };
    expect(room([at("C1", 0.02)], { lid }).heightMaxMetres).toBeCloseTo(0.028, 9);
    const low = [{ xMetres: 0, yMetres: 0, widthMetres: 0.05, depthMetres: 0.05, heightMetres: 0.02 }];
    expect(room([at("C1", 0.02)], { lid: { ...lid, lidZones: low } }).heightMaxMetres).toBeCloseTo(0.018, 9);
    expect(placeRoom(samplePosition("C1", { xMetres: null }), around({}))).toEqual({
      ...{ diameterMaxMetres: null, nextToId: null, heightMaxMetres: null },
    });
  });
});

describe("the air around a place", () => {
  const purpose: Purpose = { hoursPerDay: 8, standbyHoursPerDay: 0, ambientCelsius: 25, isEnclosed: false };
  const dried = [
    sampleReading("C1", { value: 0.4, circuitState: "out" }),
    sampleReading("C1", { quantity: "capacitance", value: 500e-6, circuitState: "out" }),
  ];
  const diode = samplePosition("D1", { kind: "diode" });
  const soundDiode = (["A,K", "K,A"] as const).map((terminals) =>
    sampleReading("D1", {
      ...{ fittedPartId: null, quantity: "diode_drop", terminals, frequencyHertz: null },
      ...(terminals === "A,K" ? { value: 0.3 } : { value: null, coarseCode: "over_range" }),
    }),
  );
  const need = (facts: Partial<JobFacts>, told: Purpose = purpose) =>
    replacementRequirement({
      ...{ position: samplePosition("C1"), part: samplePart("C1"), net: sampleNet(), voltageSchool: "both" },
      ...{ purpose: told, around: around({ nets: [sampleNet()], positions: [samplePosition("C1"), diode], ...facts }) },
    });
  const device = { kind: "monitor", topology: "flyback", ageYears: 5 } as const;
  it("is what a part of 2000 hours that died after five years of eight hours implies: 76 degrees", () => {
    const found = impliedAmbientCelsius({
      ratedLifeHours: 2000,
      ratedTemperatureCelsius: 105,
      years: 5,
      hoursPerDay: 8,
    });
    expect(found.celsius).toBeCloseTo(76.3, 1);
    expect(found.highCelsius - found.celsius).toBeCloseTo(4.15, 2);
  });
  it("takes the warmer of the promised use and the old part's death, a spot before both, and assumes last", () => {
    const told = { device, readings: [...dried, ...soundDiode] };
    expect(need(told)?.ambientCelsius.source).toBe("predecessor");
    expect(need(told)?.ambients.map((one) => one.source)).toEqual(["predecessor", "purpose"]);
    const hot = {
      ...told,
      readings: [...told.readings, sampleReading("C1", { quantity: "temperature", value: 66, isPowered: true })],
    };
    expect(need(hot)?.ambientCelsius).toEqual({ value: 66, source: "spot" });
    const nothing = { hoursPerDay: null, standbyHoursPerDay: null, ambientCelsius: null, isEnclosed: null };
    expect(need({ device }, nothing)?.ambientCelsius).toEqual({ value: 60, source: "assumed" });
  });
  it("is bounded by a part that reads as new after its years", () => {
    const asNew = [
      sampleReading("C1", { value: 0.033, circuitState: "out" }),
      sampleReading("C1", { quantity: "capacitance", value: 980e-6, circuitState: "out" }),
    ];
    const hot = { ...purpose, ambientCelsius: 50, isEnclosed: true };
    // 3000 hours of a low-impedance part, 14,600 lived: it never stood above 82 degrees, though 85 were promised.
    expect(need({ device, readings: asNew }, hot)?.ambientCelsius).toMatchObject({ source: "survivor" });
    expect(need({ device, readings: asNew }, hot)?.ambientCelsius.value).toBeCloseTo(82.2, 1);
    expect(need({ device, readings: asNew })?.ambientCelsius.source).toBe("purpose");
  });
  it("believes no death that was not drying, or whose rectifier nobody read sound, or without hours", () => {
    const source = (facts: Partial<JobFacts>, told = purpose) => need(facts, told)?.ambientCelsius.source;
    expect(source({ device, readings: dried })).toBe("purpose");
    expect(source({ device, readings: [dried[0] as never, ...soundDiode] })).toBe("purpose");
    expect(source({ device: { ...device, ageYears: null }, readings: [...dried, ...soundDiode] })).toBe("purpose");
    expect(source({ device, readings: [...dried, ...soundDiode] }, { ...purpose, hoursPerDay: null })).toBe("purpose");
  });
});

describe("the volts of a place", () => {
  const need = (net: BoardNet, readings: JobFacts["readings"] = [], more: object = {}) =>
    replacementRequirement({
      ...{ position: samplePosition("C1"), part: samplePart("C1"), net, voltageSchool: "rail" },
      ...{ around: around({ nets: [net], readings }), ...more },
    })?.leastRatedVolts;
  it("come from the highest that was logged there, and a control supply takes half more", () => {
    expect(need(sampleNet())).toEqual({ value: 15, source: "rail" });
    const high = [sampleRailReading("net-12", { value: 13.2 }), sampleRailReading("net-12", { value: 12 })];
    expect(need(sampleNet(), high)?.source).toBe("logged");
    expect(need(sampleNet(), high)?.value).toBeCloseTo(16.5, 9);
    expect(need(sampleNet({ section: "vcc" }))?.value).toBeCloseTo(18, 9);
    expect(need(sampleNet({ nominalVolts: 5 }))?.value).toBeCloseTo(6.25, 9);
    expect(need(sampleNet({ nominalVolts: 5 }), [], { lowRailVoltsRatio: 1.5 })?.value).toBeCloseTo(7.5, 9);
  });
  it("are those of the highest mains behind a bridge: 400 V for 230 V", () => {
    const bulk = sampleNet({ section: "bulk", nominalVolts: 325 });
    expect(need(bulk)?.value).toBeCloseTo(230 * Math.SQRT2 * 1.1 * 1.1, 6);
    expect(need(bulk)?.value).toBeLessThan(400);
  });
});

describe("a bulk's capacitance", () => {
  const bulk = sampleNet({ id: "bulk", section: "bulk", nominalVolts: null, fullLoadAmps: null });
  const at = samplePosition("C1", { netId: "bulk" });
  const facts = { nets: [bulk, sampleNet({ fullLoadAmps: 10 })], positions: [at], fittedParts: [] };
  it("holds up the promised load for a half cycle, and no more than the thermistor takes in", () => {
    const found = bulkWindow(at, bulk, 100e-6, around(facts));
    // 2 x 120 W x 10 ms / (0.85 x (292.7^2 - 90^2)) = 36.4 uF
    expect(found?.leastFarads).toBeCloseTo(36.4e-6, 7);
    expect(found?.mostFarads).toBeNull();
    const ntc = samplePosition("RT1", { kind: "ntc", netId: null, outlineWidthMetres: 9e-3 });
    // 15 J at 358 V: 234 uF
    expect(bulkWindow(at, bulk, 100e-6, around({ ...facts, positions: [at, ntc] }))?.mostFarads).toBeCloseTo(234e-6, 6);
    expect(bulkWindow(at, bulk, 300e-6, around({ ...facts, positions: [at, ntc] }))?.mostFarads).toBeNull();
    expect(bulkWindow(samplePosition("C9"), sampleNet(), 100e-6, around(facts))).toBeNull();
  });
  it("takes several times the inrush when it is switched on again hot", () => {
    const note = inrushNote(around(facts), 150e-6);
    expect(note.isThermistorAssumed).toBe(true);
    expect(note.coldAmps).toBeCloseTo((230 * Math.SQRT2) / 5.7, 6);
    expect(note.hotAmpsSquaredSeconds / note.coldAmpsSquaredSeconds).toBeCloseTo(5.7 / (0.7 + 5 / 12), 6);
    expect(note.joules).toBeCloseTo(7.9, 1);
  });
});
