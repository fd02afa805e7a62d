import {
  type ChargeState,
  firstChecks,
  judgeBoard,
  type LedgerEntry,
  lenses,
  type OpenPointCode,
  type PowerGate,
  type Rejection,
  type RejectionCode,
  type Shutter,
  stages,
  symptomCodes,
  symptomLabels,
  unknownCharge,
  verdictWords,
  visualSigns,
} from "@pale-cap/core";
import { sampleJob, samplePower, sampleReading, sampleRules, sampleStore } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import { directionWord, listWords, netWords, signLabels } from "./boardWords";
import { type CautionKey, cautionChapters, cautions } from "./cautions";
import { chargeWords, dangerWords } from "./chargeWords";
import { firstCheckWords, stageLabels } from "./faultWords";
import { gateCheckWords, powerGateWords, shutterWords } from "./firstPowerWords";
import { familyFindingWords, standingWords } from "./intakeWords";
import { ledgerLine, weightWords } from "./ledgerWords";
import { lensLabels, openPointWords } from "./lensWords";
import { testWords } from "./probeWords";
import { rejectionWords } from "./replacementWords";
import { verdictLabels } from "./verdictWords";

const everyText = (texts: readonly string[]) => {
  for (const text of texts) {
    expect(text.length).toBeGreaterThan(2);
    expect(text).not.toMatch(/undefined|NaN|null|\[object|!|Infinity/);
  }
};

describe("wording", () => {
  it("has a word for every code of core's vocabularies", () => {
    everyText(verdictWords.map((word) => verdictLabels[word]));
    everyText(lenses.map((lens) => lensLabels[lens]));
    everyText(visualSigns.map((sign) => signLabels[sign]));
    everyText(symptomCodes.map((code) => symptomLabels[code] ?? ""));
    everyText(stages.map((stage) => stageLabels[stage]));
    for (const { code } of firstChecks) expect(firstCheckWords(code)).not.toBe(code);
  });

  it("never says that something is safe, and defers to local codes", () => {
    const all = Object.values(cautions);
    everyText(all);
    for (const text of all) expect(text.replace("never that something is safe", "")).not.toMatch(/\bsafe\b/i);
    expect(cautions.standing).toMatch(/Local electrical codes and licensed or qualified practice come first/);
  });

  it("has a sentence for every open point, with its subject", () => {
    const codes: readonly OpenPointCode[] = [
      "part_not_replaced",
      "part_not_refitted",
      "part_undecided",
      "polarity_unconfirmed",
      "polarity_conflict",
      "rail_not_loaded",
      "rail_outside_limits",
      "ripple_not_measured",
      "ripple_above_limit",
      "earth_screws_missing",
      "not_put_back",
    ];
    for (const code of codes) {
      const words = openPointWords({ key: "k", code, subject: "C14", positionId: null, netId: null });
      expect(words).toMatch(/C14/);
      everyText([words]);
    }
  });

  it("words every ledger entry that a judgement can make", () => {
    const readings = [
      sampleReading("C1", { value: 0.5, circuitState: "in_circuit" }),
      sampleReading("C2", { value: 0.03 }),
      sampleReading("C2", { quantity: "capacitance", value: 1.6e-3 }),
      sampleReading("C2", { quantity: "voltage_loss", value: 0.2 }),
    ];
    const signs = [
      { fittedPartId: "part-C2", sign: "vented", state: "seen", observedAt: "2026-11-23T09:00:00Z", sequence: 1 },
    ] as const;
    const entries = [...judgeBoard(sampleJob({ readings, signs }), sampleRules.judgement).values()].flatMap(
      (one) => one.ledger,
    );
    expect(new Set(entries.map((entry) => entry.kind)).size).toBeGreaterThanOrEqual(5);
    for (const entry of entries) {
      const line = ledgerLine(entry, "C1", ["C2"]);
      everyText([line.title, line.text]);
    }
  });

  it("names the neighbours that could hide a part, and what to lift", () => {
    const entry: LedgerEntry = {
      kind: "bank",
      code: "bank_masked",
      value: Number.POSITIVE_INFINITY,
      expectation: null,
      failedLimit: null,
      source: "bank_interval",
      weight: null,
      readingIds: [],
    };
    const { text } = ledgerLine(entry, "C14", ["C15", "C16"]);
    expect(text).toContain("C15 and C16 could hide it.");
    expect(text).not.toContain("Infinity");
  });

  it.each([
    ["capacitance_low", 820e-6, 900e-6, "820 µF"],
    ["voltage_low", 10, 16, "10 V, needs 16 V"],
    ["height_large", 0.025, 0.02, "25 mm"],
    ["pitch_differs", 0.0075, 0.005, "7.5 mm"],
    ["esr_high", 0.09, 0.0575, "90 mΩ"],
  ] as const satisfies readonly (readonly [RejectionCode, number, number, string])[])(
    "says what a part had and would have needed: %s",
    (code, got, limit, words) => {
      const rejection: Rejection = { code, got, limit, checks: [] };
      expect(rejectionWords(rejection).replaceAll("\u00a0", " ")).toContain(words);
    },
  );

  it("says weights in plain words, with their direction", () => {
    expect(weightWords(5)).toBe("speaks very strongly against it");
    expect(weightWords(-1)).toBe("speaks for it");
    expect(weightWords(0.1)).toBe("hardly counts");
    expect(weightWords(null)).toBe("");
  });

  it("names a net once when it is still called after its section", () => {
    expect(netWords({ name: "Bulk", section: "bulk" })).toBe("Bulk");
    expect(netWords({ name: "16 V", section: "output" })).toBe("16 V, output, before choke");
    expect(netWords(undefined)).toBe("no net");
  });

  it("lists names without running over the pane", () => {
    expect([[], ["C1"], ["C1", "C2"], ["C1", "C2", "C3", "C4"]].map(listWords)).toEqual([
      "",
      "C1",
      "C1 and C2",
      "C1, C2, C3 and C4",
    ]);
    expect(listWords(["C1", "C2", "C3", "C4", "C5"])).toBe("C1, C2, C3 and 2 more");
  });

  it("points as a person does", () => {
    expect([0, 90, 180, 270, 350, null].map(directionWord)).toEqual([
      "right",
      "bottom",
      "left",
      "top",
      "right",
      "not recorded",
    ]);
  });

  it("says of the charge what was measured and when, or why it is unknown", () => {
    const stores = [sampleStore({ id: "s" })];
    const state = {
      ...unknownCharge("mains_connected", { storeId: "s", at: "2026-11-23T10:00:00Z" }),
      volts: 2.1,
    };
    const words = (more: Partial<ChargeState>) => plain(chargeWords({ ...state, ...more }, stores, 0));
    expect(words({ name: "verified" })).toMatch(/^Bulk C1 measured 2.1 V at [^,]+$/);
    expect(words({ name: "verified", isDrainOn: true })).toMatch(/, drain on$/);
    expect(words({})).toBe("Bulk C1 unknown: mains was connected");
    expect(words({ storeId: null, reason: "not_named", designators: ["C2", "C3"] })).toBe(
      "Charge unknown: C2 and C3 not named yet",
    );
    expect(words({ name: "draining", predictedVolts: 41 })).toContain("if connected");
    const once = { name: "drained_once", waitsFor: "second_reading" } as const;
    expect(words({ ...once, waitUntilMilliseconds: 59_001 })).toBe(
      "Bulk C1 2.1 V, drained once: wait 60 s, read again",
    );
    expect(words({ ...once, waitUntilMilliseconds: 0 })).toBe("Bulk C1 2.1 V, drained once: read again now");
    expect(words({ ...once, waitsFor: "drain_removed", waitUntilMilliseconds: 1 })).toContain("drain off: wait 1 s");
    expect(words({ ...once, waitsFor: "creeps_back", creepVolts: 16.2 })).toBe(
      "Bulk C1 2.1 V, creeping back towards 16 V: drain again",
    );
    expect(words({ ...once, waitsFor: "other_side_of_fuse" })).toContain("read the other side");
  });

  it.each<[CautionKey, readonly RegExp[]]>([
    [
      "livePrimary",
      [/clip of an earthed scope on the hot ground is a dead short/, /differential probe/, /never lifted/],
    ],
    ["firstPower", [/isolates; it does not limit current/, /eye protection/, /vents upward/, /lamp burns/]],
    ["overVoltage", [/host unplugged/, /dummy load/]],
    ["hotSink", [/drain or the hot ground/, /never a scope's ground/]],
    ["phantomVolts", [/Y capacitors/, /no proof of insulation/]],
    ["backlight", [/above 1 kV/, /output side, more when one is open/]],
    ["limitedEnergy", [/Plug out and bulk verified/, /mains-level volts once it switches/]],
    ["xCapacitor", [/a discharge chip works only while its unit does/, /either side of the fuse/]],
    ["electrolyte", [/gloves on/, /nothing to the eyes/, /before any heat/, /smell of fish/]],
    ["hotAir", [/film and X capacitors/]],
    ["chargedByTest", [/insulation test/, /discharge it and verify again/]],
    ["storedCharge", [/wait, measure again: it creeps back/]],
  ])("%s leaves out nothing that hurts", (key, dangers) => {
    for (const danger of dangers) expect(cautions[key]).toMatch(danger);
  });

  it("stops an outside feed of the control IC, and knows a chip that may stay silent", () => {
    const how = (name: string) => Object.values(testWords).find((one) => one.name === name)?.how;
    expect(how("Feed Vcc from outside")).toMatch(/stop at 20 V unless .* never with the mains connected/);
    expect(how("Limited DC on the bulk")).toMatch(/brown-out pin stays silent below about 80 V: no fault/);
  });

  it("gathers every caution once on the page that gathers them", () => {
    const listed = cautionChapters.flatMap(([, keys]) => keys);
    expect([...listed, "standing"].sort()).toEqual(Object.keys(cautions).sort());
  });

  it("compares a charge with something that falls", () => {
    expect(plain(dangerWords(7.92, 325))).toBe("Can kill across the chest; the energy of a kilogram falling 81 cm");
    expect(plain(dangerWords(25, 325))).toContain("Can kill; the energy of a kilogram falling 2.5 m");
    expect(dangerWords(0.02, 24)).toContain("under a centimetre");
  });

  it("says why no power is offered, and what opened the way", () => {
    const demand = { item: "bulk", subjectId: null, designator: null, check: null } as const;
    const gate: PowerGate = {
      ...{ isShut: true, cause: "fuse_blown", overruledBy: null },
      demands: [
        { ...demand, state: "open" },
        { ...demand, state: "passed" },
        { ...demand, state: "low" },
      ],
    };
    expect(powerGateWords(gate)).toBe("A fuse blew: 2 of 3 tests are open, no power-up is offered.");
    expect(powerGateWords({ ...gate, isShut: false })).toBe("A fuse blew; tested since, no short found.");
    expect(powerGateWords({ ...gate, cause: null })).toBe("");
    const overruledBy = samplePower("gate_overruled", 0, { note: "limited d.c. feed" });
    expect(powerGateWords({ ...gate, isShut: false, overruledBy })).toBe("A fuse blew; overruled: limited d.c. feed");
    const read = { values: [0.95, "open"], reason: null, note: null } as const;
    expect(plain(gateCheckWords("bridge", read))).toBe("950 mV, open");
    expect(gateCheckWords("sink", { ...read, values: [], reason: "isolated_part" })).toBe("fully isolated part");
  });

  it("says what stands against the mains", () => {
    const words = (code: Shutter["code"], ...subjects: string[]) => shutterWords({ code, subjects, positionIds: [] });
    expect(words("part_out", "C1")).toBe("C1 is out and nothing is in.");
    expect(words("bad_power_part_in", "Q1", "D2")).toBe("Q1 and D2 read bad and are still in.");
    expect(words("check_missing", "rail:12 V", "bridge:")).toBe(
      "Cold checks are missing: 12 V to its ground and Bridge + to −, diode test.",
    );
    expect(words("sheet_or_earth_out", "sheet:1", "earth_screws:2")).toBe("1 insulating sheet and 2 earth screws out.");
  });

  it("tells of other units with their numbers", () => {
    const finding = {
      code: "part_bad",
      subject: "C21",
      unitNumbers: [7, 143],
      verdict: "failed",
      own: "not_checked",
      ownPositionId: null,
      ownNetId: null,
    } as const;
    expect(familyFindingWords(finding)).toBe("C21 failed on 0007, 0143");
    expect(standingWords(finding.own)).toBe("not checked here");
  });
});

const plain = (text: string) => text.replaceAll("\u00a0", " ");
