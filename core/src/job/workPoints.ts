import { type JobAct, lastActOf, type WorkKind } from "../facts/jobActs";
import type { JobFacts } from "../facts/jobFacts";
import { doneSteps } from "../facts/reworkTicks";
import { inOrder, serverMilliseconds } from "../readings/factMoment";
import { boardDamages } from "../rework/boardDamage";
import { workChecks } from "../rework/workChecks";
import { type OpenPoint, type OpenPointCode, openPoint } from "./openPoint";

/** Work that hurts later where it was not done; the rest is a list to go by. */
const telling: readonly WorkKind[] = [
  "adhesive_scraped",
  "alloy_cleared",
  "electrolyte_washed",
  "dried",
  "insulator_in",
];

/** What the work on the board leaves open: parts that are in for now, damage, glue that cures, checks that nobody ticked. */
export function workPoints(facts: JobFacts, nowMilliseconds: number): readonly OpenPoint[] {
  const point = (code: OpenPointCode, positionId: string | null): readonly OpenPoint[] => {
    const position = facts.positions.find((one) => one.id === positionId);
    return position ? [openPoint(code, position.designator, { positionId: position.id, netId: position.netId })] : [];
  };
  const temporary = facts.positions.filter(
    ({ id }) =>
      doneSteps(facts.ticks, id).has("fitted") && lastActOf(facts.acts, "temporary_part", id)?.word === "for_now",
  );
  const damages = boardDamages(facts.acts);
  const open = (isOpen: boolean) =>
    new Set(
      damages.filter((one) => one.state !== "shown" && (one.state === "open") === isOpen).map((o) => o.positionId),
    );
  const curing = new Set(
    inOrder(facts.acts)
      .filter((act) => act.kind === "glue_set" && curesUntil(act) > nowMilliseconds)
      .map((act) => act.subjectId),
  );
  const checks = workChecks(facts);
  const insulation = checks.find((one) => one.kind === "sink_insulation");
  const unread = insulation?.positionIds.filter((id) => !insulation.doneIds.includes(id)) ?? [];
  const others = new Set(
    checks
      .filter((one) => telling.includes(one.kind))
      .flatMap((one) => one.positionIds.filter((id) => !one.doneIds.includes(id))),
  );
  return [
    ...temporary.flatMap((one) => point("temporary_part", one.id)),
    ...[...open(true)].flatMap((id) => point("damage_open", id)),
    ...[...open(false)].flatMap((id) => point("mend_not_shown", id)),
    ...[...curing].flatMap((id) => point("glue_curing", id)),
    ...(insulation?.lowIds ?? []).flatMap((id) => point("sink_insulation_low", id)),
    ...unread.flatMap((id) => point("sink_insulation_not_read", id)),
    ...[...others].flatMap((id) => point("work_check_open", id)),
  ];
}

/** By the server's clock where the two are known apart. */
export function curesUntil(act: JobAct): number {
  return (serverMilliseconds(act) ?? Date.parse(act.at)) + 1000 * (act.value ?? 0);
}
