import type { JobDetail, PlanRow } from "@pale-cap/contract";
import { type SampleDetail, sampleDetail } from "@pale-cap/contract/testing";
import { sampleNet, samplePart, samplePosition, sampleReading } from "@pale-cap/core/testing";
import { expect, it } from "vitest";
import { behindStudy, sharedOf } from "./studyShare";

/** A unit's own ids lead to the lineage by what stands behind the last stroke. */
const lineageOf = (id: string) => id.split("/").at(-1) as string;
const place = (unit: string, more: object = {}) =>
  samplePosition("C1", { id: `${unit}/C1`, netId: `${unit}/12`, ...more });
const found = (unit: string, more: object = {}) =>
  samplePart("C1", { id: `${unit}/part`, positionId: `${unit}/C1`, ...more });
const plan = (unit: string, more: Partial<PlanRow> = {}) =>
  ({
    ...{ positionId: `${unit}/C1`, cataloguePartId: null, isLeftEmpty: false, component: null, otherPart: null },
    ...more,
  }) as PlanRow;
function shared(
  unit: string,
  more: SampleDetail = {},
  plans: readonly PlanRow[] = [],
  job: Partial<JobDetail["job"]> = {},
) {
  const detail = sampleDetail({
    nets: [sampleNet({ id: `${unit}/12` })],
    positions: [place(unit)],
    fittedParts: [found(unit)],
    ...more,
  });
  return sharedOf({ ...detail, plans, job: { ...detail.job, ...job } }, lineageOf);
}
const study = shared("a");
const nothing = { complaint: false, rails: [], places: [], choices: [] };

it("says nothing of a unit that has all of it under ids of its own, whatever was read and whatever went in there", () => {
  const more = {
    fittedParts: [
      found("b", { id: "b/new", origin: "replacement", capacitanceFarads: 1e-6, fittedAt: "2026-11-23T10:00:00Z" }),
      found("b"),
    ],
    readings: [sampleReading("C1")],
  };
  expect(behindStudy(study, shared("b", more))).toEqual(nothing);
  const order = shared("a", {}, [], { symptoms: ["dead", "collapses_under_load"] });
  expect(behindStudy(order, shared("b", {}, [], { symptoms: ["collapses_under_load", "dead"] }))).toEqual(nothing);
});

it("tells another fault, rail or place, by its name in the study", () => {
  expect(behindStudy(study, shared("b", {}, [], { complaint: "ticks" }))).toEqual({ ...nothing, complaint: true });
  expect(behindStudy(study, shared("b", { nets: [sampleNet({ id: "b/12", nominalVolts: 14 })] }))).toEqual({
    ...nothing,
    rails: ["12 V"],
  });
  const otherPlace = [place("b", { netId: "b/5" })];
  const placed = [
    { positions: [place("b", { heatSource: "the sink" })] },
    { positions: otherPlace },
    { positions: [] },
    { fittedParts: [found("b", { ratedVolts: 25 })] },
    { fittedParts: [] },
  ];
  for (const more of placed) expect(behindStudy(study, shared("b", more))).toEqual({ ...nothing, places: ["C1"] });
});

it("follows a rail behind another by its lineage", () => {
  const network = (behindNetId: string | null) => ({
    arrangement: "parallel",
    behindNetId,
    chokeHenrys: null,
    chokeOhms: null,
  });
  const railed = (unit: string, behind: string | null) =>
    shared(unit, { nets: [sampleNet({ id: `${unit}/12`, network: network(behind) as never })] });
  expect(behindStudy(railed("a", "a/5"), railed("b", "b/5"))).toEqual(nothing);
  expect(behindStudy(railed("a", "a/5"), railed("b", "b/12"))).toEqual({ ...nothing, rails: ["12 V"] });
  expect(behindStudy(railed("a", "a/5"), railed("b", null))).toEqual({ ...nothing, rails: ["12 V"] });
});

it("tells what was chosen there and not here, for a place that is on the board", () => {
  const chosen = shared("a", {}, [plan("a", { cataloguePartId: "part-7" })]);
  expect(behindStudy(chosen, shared("b", {}, [plan("b", { cataloguePartId: "part-7" })]))).toEqual(nothing);
  for (const plans of [[], [plan("b")], [plan("b", { cataloguePartId: "part-8" })], [plan("b", { isLeftEmpty: true })]])
    expect(behindStudy(chosen, shared("b", {}, plans))).toEqual({ ...nothing, choices: ["C1"] });
  const gone = shared("a", { positions: [] }, [plan("a", { cataloguePartId: "part-7" })]);
  expect(gone.choices.size).toBe(0);
});
