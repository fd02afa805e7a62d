import type { FittedPartRow, JobDetail } from "@pale-cap/contract";
import { currentPart, partBeside, partInHand } from "@pale-cap/core";
import type { ProbeTarget } from "./workplaceSlice";

type Parts = Pick<JobDetail, "fittedParts" | "ticks">;

/** The part between the probes, and where it is: in its place, new in the hand, or taken out and lying beside it. */
export interface ProbedPart {
  readonly part: FittedPartRow | undefined;
  readonly where: "in_place" | "in_hand" | "beside";
}

/** Which part a target means: a place that is empty means what came out of it, until the new one is aimed at. */
export function probedPart({ fittedParts, ticks }: Parts, target: ProbeTarget | undefined): ProbedPart {
  if (target?.kind !== "part") return { part: undefined, where: "in_place" };
  if (target.isNewPart) return { part: partInHand(fittedParts, target.id), where: "in_hand" };
  const current = currentPart(fittedParts, target.id);
  const beside = current ? undefined : partBeside(fittedParts, ticks, target.id);
  return beside ? { part: beside, where: "beside" } : { part: current, where: "in_place" };
}
