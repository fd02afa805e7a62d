import {
  foldHouseRules,
  type HouseRuleValues,
  type JobDetail,
  type ReportBlock,
  type ReportDocument,
} from "@pale-cap/contract";
import { type SampleDetail, sampleDetail } from "@pale-cap/contract/testing";
import { sampleNet, samplePart, samplePosition, sampleReading } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import { customerReport } from "./customerReport";
import { bagLabel, drawerLabel, unitLabel, warningTags } from "./labels";
import { recordReport } from "./recordReport";
import { documentDifference, documentLines, table } from "./reportDocument";
import { reportModel } from "./reportModel";

const now = Date.UTC(2026, 10, 23, 12);
const model = (more: SampleDetail = {}, job: Partial<JobDetail["job"]> = {}, rules: Partial<HouseRuleValues> = {}) => {
  const detail = sampleDetail(more);
  const told = {
    ...{
      realm: "shop",
      createdAt: "2026-11-20T10:00:00Z",
      handedOverAt: null,
      warrantyUntil: null,
      deviceMaker: "Brambix",
    },
    ...{ deviceModel: "Halden 24", deviceSerial: null, ownersWords: null, symptomNote: null, customerName: null },
    ...{ verdictSummary: null, priceLimitMinor: null },
  };
  return reportModel({
    detail: { ...detail, job: { ...detail.job, ...told, ...job } as JobDetail["job"] },
    houseRules: { ...foldHouseRules([]), ...rules },
    ...{ runs: [], people: [{ id: "p1", name: "Ada" }], instruments: [], reopenings: [], coreVersion: "0.0.1" },
    nowMilliseconds: now,
  });
};
const under = (document: ReportDocument, title: string): string => {
  const at = document.blocks.findIndex((one) => one.kind === "heading" && one.words === title);
  const rest = document.blocks.slice(at + 1);
  const end = rest.findIndex((one) => one.kind === "heading");
  const own = at < 0 ? [] : rest.slice(0, end < 0 ? undefined : end);
  return own.map(words).join(" | ");
};
const words = (block: ReportBlock): string => spelled(block).replace(/[\u00a0\u202f]/g, " ");
const spelled = (block: ReportBlock): string =>
  block.kind === "list" ? block.items.join(" | ") : block.kind === "text" ? block.words : JSON.stringify(block);
const all = (document: ReportDocument) =>
  documentLines(document)
    .join("\n")
    .replace(/[\u00a0\u202f]/g, " ");

describe("the customer's report", () => {
  it("says of a unit of which nothing was read that nothing was, and calls nothing in order", () => {
    const document = customerReport(model({ readings: [], signs: [] }));
    expect(document.notices).toEqual(["The repair is not finished: this is how it stands."]);
    expect(under(document, "What we did")).toBe("Nothing was changed on the unit.");
    expect(under(document, "What we tested, and how far")).toContain("Nothing was tested.");
    expect(all(document)).not.toMatch(/in order|safe\b|within its limits/i);
  });

  it("promises nothing of a unit that was not repaired, and says not to use it", () => {
    const acts = [
      {
        ...{ id: "a", kind: "outcome" as const, subjectId: null, word: "not_repaired", note: null, sequence: 9 },
        ...{
          at: "2026-11-23T10:00:00Z",
          clockId: null,
          receivedAt: null,
          clockAheadSeconds: null,
          cameAfterClosing: false,
        },
      },
    ];
    const document = customerReport(model({ acts }, { handedOverAt: "2026-11-23T11:00:00Z" }));
    expect(document.notices.join(" ")).toContain("Not repaired: not to be used.");
    expect(under(document, "Warranty")).toBe("None: the unit was not repaired.");
    expect(under(document, "How to care for it")).toBe("Do not use it.");
    expect(document.dates.map(([name]) => name)).not.toContain("Warranty until");
  });

  it("tells how far an output was loaded, and its volts only where the house wants it", () => {
    const rail = sampleNet({ id: "a", name: "12 V", section: "output", nominalVolts: 12, fullLoadAmps: 4 });
    const read = (amps: number, value: number) =>
      sampleReading("C1", {
        ...{
          id: "r1",
          targetKind: "rail",
          targetId: "a",
          fittedPartId: null,
          quantity: "dc_voltage",
          value,
          loadAmps: amps,
        },
        ...{ isPowered: true, circuitState: null },
      });
    const tested = (amps: number, value: number, rules: Partial<HouseRuleValues> = {}) =>
      customerReport(model({ nets: [rail], readings: [read(amps, value)] }, {}, rules));
    const [passed, part, failed] = [tested(4, 12.02), tested(2, 12.02), tested(4, 9)];
    expect(under(passed, "What we tested, and how far")).toContain(
      "Output 12 V was loaded with 4 A of the 4 A promised and held within its limits.",
    );
    expect(under(part, "What we tested, and how far")).toContain("2 A of the 4 A promised only");
    expect(under(failed, "What we tested, and how far")).not.toContain("12 V was loaded");
    expect(under(failed, "What was not tested, or not as it should be")).toContain("and was outside its limits.");
    expect(all(passed)).not.toContain("12.02");
    expect(all(tested(4, 12.02, { "shop.customerReadings": true }))).toContain("It stood at 12.02");
  });

  it("calls a trim that was turned a change, though no part was", () => {
    const rail = sampleNet({ id: "a", name: "12 V", section: "output" });
    const turned = {
      ...{ id: "t", kind: "trim_turned" as const, subjectId: "a", word: null, note: null, sequence: 9 },
      ...{ at: "2026-11-23T10:00:00Z", clockId: null, receivedAt: null, clockAheadSeconds: null },
      cameAfterClosing: false,
    };
    const done = under(customerReport(model({ nets: [rail], acts: [turned] })), "What we did");
    expect(done).toBe("The voltage of output 12 V was set anew.");
  });

  it("names what the warranty covers, and whom to ask", () => {
    const [found, fresh] = [
      samplePart("C1", { removedAt: "2026-11-22T10:00:00Z" }),
      samplePart("C1", { id: "new", origin: "replacement", fittedAt: "2026-11-22T10:00:00Z" }),
    ];
    const closed = { handedOverAt: "2026-11-23T11:00:00Z", warrantyUntil: "2027-05-23" };
    const rules = { "shop.name": "Hum & Hiss", "shop.contact": "0171 555" };
    const document = customerReport(
      model({ fittedParts: [found, fresh], positions: [samplePosition("C1")] }, closed, rules),
    );
    expect(under(document, "Warranty")).toContain("Until 23 May 2027, on the parts fitted (C1) and the same fault");
    expect(under(document, "What we did")).toContain("New: 1 electrolytic capacitor (C1).");
    expect(document.foot).toBe("Hum & Hiss · 0171 555");
  });
});

describe("the record", () => {
  it("has the evidence behind each verdict, who accepted what and why, and by what it was judged", () => {
    const acceptance = {
      ...{ id: "x", key: "never_powered", reason: "customer wants it so", personId: "p1", sequence: 50 },
      ...{
        acceptedAt: "2026-11-23T09:30:00Z",
        clockId: null,
        receivedAt: null,
        clockAheadSeconds: null,
        cameAfterClosing: false,
      },
    };
    const readings = [sampleReading("C1", { id: "r1", value: 4.2, circuitState: "out" })];
    const document = recordReport(
      model({ readings, acceptances: [acceptance] as never }, {}, { "judge.failedFromRatio": 0.9 }),
    );
    expect(under(document, "What each verdict stands on")).toMatch(
      /C1, failed, 1 reading\. ESR 4\.2 Ω, out of circuit/,
    );
    expect(under(document, "Open points")).toContain("Accepted by Ada, 23 Nov 2026, 10:30: customer wants it so");
    expect(under(document, "Judged by")).toMatch(/core 0\.0\.1.*0\.9/);
    expect(under(document, "Rig and instruments")).toContain('"1","not noted"');
    expect(all(document)).toContain("State of stored charge, 23 Nov 2026, 13:00");
  });

  it("shows what was not measured as that", () => {
    const rail = sampleNet({ id: "a", name: "12 V", section: "output", nominalVolts: 12, fullLoadAmps: 4 });
    const document = recordReport(model({ nets: [rail], readings: [] }));
    expect(under(document, "Proof")).toContain("not measured");
    expect(under(document, "Proof")).toContain("never read");
    expect(all(document)).not.toContain("passed");
  });
});

describe("two versions of a document", () => {
  const of = (...items: string[]): ReportDocument => ({
    ...{ audience: "record", title: "t", device: "d", dates: [], notices: [], foot: "" },
    blocks: [{ kind: "list", items }],
  });
  it("differ by what is said more often or less often, in its order", () => {
    expect(documentDifference(of("a", "b", "b"), of("b", "c", "a", "a"))).toEqual({ added: ["c", "a"], gone: ["b"] });
    expect(documentDifference(of("a"), of("a"))).toEqual({ added: [], gone: [] });
  });
  it("lose columns in which nothing stands, and keep the first", () => {
    expect(table("t", ["a", "b", "c"], [["", "", "3"]], [2])).toMatchObject({
      heads: ["a", "c"],
      rows: [["", "3"]],
      figures: [1],
    });
    expect(table("t", ["a"], [])).toBeNull();
  });
});

describe("labels", () => {
  it("name the job, what was replaced and the promise; codes hold the house's address", () => {
    const fresh = samplePart("C1", { id: "new", origin: "replacement", fittedAt: "2026-11-22T10:00:00Z" });
    const closed = { handedOverAt: "2026-11-23T11:00:00Z", warrantyUntil: "2027-05-23", number: 7 };
    const old = samplePart("C1", { removedAt: "2026-11-22T10:00:00Z" });
    const found = model({ fittedParts: [old, fresh], positions: [samplePosition("C1")] }, closed);
    expect(unitLabel(found)).toMatchObject({ title: "0007", code: "0007" });
    expect(unitLabel(found).lines).toEqual(expect.arrayContaining(["Replaced C1", "Warranty until 23 May 2027"]));
    expect(bagLabel(found, "C1 old").lines).toContain("C1 old");
    const address = { "shop.address": "http://a.invalid/go/{number}" };
    expect(unitLabel(model({}, closed, address)).code).toBe("http://a.invalid/go/0007");
    const item = {
      ...{ drawer: "B 4/2", lot: "L9", dateCode: null, count: 3 },
      marking: {
        capacitanceFarads: 1e-3,
        ratedVolts: 16,
        temperatureClassCelsius: 105,
        diameterMetres: 0.01,
        heightMetres: null,
      },
    };
    const drawer = drawerLabel(item as never, { ...foldHouseRules([]), ...address });
    expect(drawer).toMatchObject({ title: "B 4/2", code: "http://a.invalid/go/B%204%2F2" });
    expect(drawer.lines).toContain("10 × ? mm");
  });

  it("warn where the charge is not verified", () => {
    expect(warningTags(model()).map((one) => one.title)).toEqual(["Charge not verified"]);
    expect(warningTags(model()).every((one) => one.isWarning && one.code === null)).toBe(true);
  });
});
