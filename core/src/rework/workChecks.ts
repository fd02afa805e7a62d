import type { BoardPosition } from "../board/board";
import { type JobAct, lastActOf, type WorkKind } from "../facts/jobActs";
import type { JobFacts } from "../facts/jobFacts";
import { doneSteps } from "../facts/reworkTicks";
import { latestSigns, type VisualSign } from "../facts/visualSigns";
import { type FactMoment, inOrder } from "../readings/factMoment";

/** Least insulation of a transistor's tab to its sink, and of a laminate that glue lay on. Usual. */
export const leastSinkOhms = 100e6;

/** Signs that electrolyte is out. */
export const leakSigns: readonly VisualSign[] = ["vented", "burst", "crust", "leak"];

/** One key of the work that belongs to a place, where something there asks for it. */
export interface WorkCheck {
  readonly kind: WorkKind;
  readonly positionIds: readonly string[];
  /** Places of these for which it stands as done. */
  readonly doneIds: readonly string[];
  /** A reading that is too low for it, by place. */
  readonly lowIds: readonly string[];
}

type Facts = Pick<JobFacts, "positions" | "ticks" | "acts" | "signs" | "fittedParts" | "powerEvents">;

/**
 * The checks that the work of this round asks for, each with the places that ask: scraping where adhesive is brown, washing and
 * drying where electrolyte is out, joints and trimmed leads where something went in, insulator, paste, screw and insulation where
 * a part stands on a sink. Low-melt alloy only where a joint was said to sit on planes of both sides.
 */
export function workChecks(facts: Facts): readonly WorkCheck[] {
  const worked = facts.positions.filter((one) => doneSteps(facts.ticks, one.id).has("removed"));
  const fitted = facts.positions.filter((one) => doneSteps(facts.ticks, one.id).has("fitted"));
  const sunk = fitted.filter((one) => standsOnSink(one, facts.positions));
  const plane = (id: string) => lastActOf(facts.acts, "joint_plane", id)?.word;
  const leaked = facts.positions.filter((one) => hasSign(facts, one.id, leakSigns));
  const places: readonly (readonly [WorkKind, readonly BoardPosition[]])[] = [
    ["adhesive_scraped", facts.positions.filter((one) => hasSign(facts, one.id, ["adhesive_brown"]))],
    ["alloy_cleared", worked.filter((one) => plane(one.id) === "both_sides")],
    ["electrolyte_washed", leaked],
    ["dried", leaked],
    ["joints_seen", fitted],
    ["leads_trimmed", fitted],
    ["insulator_in", sunk],
    ["paste_on", sunk],
    ["screw_tight", sunk],
    ["sink_insulation", sunk],
  ];
  return places.flatMap(([kind, asked]) => {
    if (asked.length === 0) return [];
    const states = asked.map((one) => ({
      id: one.id,
      ohms: kind === "sink_insulation" ? sinkOhms(facts, one.id) : null,
      isDone: standingWork(facts.acts, kind, one.id) !== null,
    }));
    const done = states.filter(({ isDone, ohms }) => isDone || ohms !== null);
    return [
      {
        kind,
        positionIds: asked.map((one) => one.id),
        doneIds: done.map((one) => one.id),
        lowIds: done.filter(({ ohms }) => ohms !== null && ohms < leastSinkOhms).map((one) => one.id),
      },
    ];
  });
}

/** Ohms from a part to its sink since it went in: ticked with the work, or tested at the gate before power; the last counts. */
function sinkOhms({ acts, powerEvents, ticks }: Facts, positionId: string): number | null {
  const fit = lastTickOf(ticks, positionId);
  const work = standingWork(acts, "sink_insulation", positionId);
  const gate = inOrder(
    powerEvents.filter(
      (one) => one.kind === "gate_check" && one.item === "sink" && one.subjectId === positionId && isAfter(one, fit),
    ),
  ).at(-1);
  const [tested] = gate?.values ?? [];
  const gateOhms = tested === "open" ? Number.POSITIVE_INFINITY : (tested ?? null);
  if (work?.value == null) return gateOhms;
  return gateOhms !== null && gate && isAfter(gate, work) ? gateOhms : work.value;
}

const isAfter = (fact: Pick<FactMoment, "sequence">, other: Pick<FactMoment, "sequence"> | null) =>
  other === null || (fact.sequence ?? Number.POSITIVE_INFINITY) > (other.sequence ?? Number.POSITIVE_INFINITY);

const lastTickOf = (ticks: Facts["ticks"], positionId: string) =>
  inOrder(ticks.filter((one) => one.positionId === positionId && one.step === "fitted" && one.isDone)).at(-1) ?? null;

/** The last word on one kind of work at a place; taking back says the kind in its note. */
function standingWork(acts: readonly JobAct[], kind: WorkKind, positionId: string): JobAct | null {
  const own = acts.filter(
    (act) =>
      act.kind === "work_done" &&
      act.subjectId === positionId &&
      (act.word === kind || (act.word === "taken_back" && act.note === kind)),
  );
  const last = lastActOf(own, "work_done", positionId);
  return last === null || last.word === "taken_back" ? null : last;
}

function hasSign({ signs, fittedParts }: Facts, positionId: string, wanted: readonly VisualSign[]): boolean {
  const subjects = [positionId, ...fittedParts.filter((one) => one.positionId === positionId).map((one) => one.id)];
  return subjects.some((id) => {
    const latest = latestSigns(signs, id);
    return wanted.some((sign) => latest[sign] === "seen");
  });
}

/** A transistor, bridge or diode that stands at a sink: nearer to one than its own depth. */
function standsOnSink(position: BoardPosition, positions: readonly BoardPosition[]): boolean {
  if (!["transistor", "bridge", "diode", "regulator"].includes(position.kind)) return false;
  if (position.heatSource !== null) return true;
  const { xMetres: x, yMetres: y } = position;
  if (x === null || y === null) return false;
  return positions.some((one) => {
    if (one.kind !== "heat-sink" || one.xMetres === null || one.yMetres === null) return false;
    const across = Math.max(Math.abs(one.xMetres - x) - (one.outlineWidthMetres ?? 0) / 2, 0);
    const along = Math.max(Math.abs(one.yMetres - y) - (one.outlineDepthMetres ?? 0) / 2, 0);
    return Math.hypot(across, along) <= atSinkMetres;
  });
}
const atSinkMetres = 8e-3;
