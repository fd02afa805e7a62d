import { currentPart, foundPart, sections } from "@pale-cap/core";
import type { JobDetail } from "../jobs/jobDetail";
import type { FittedPartRow, Net, Position } from "./board";

/** A capacitor's place with its net and the part that counts for a lens. */
export interface PlacedCapacitor {
  readonly position: Position;
  readonly net: Net | undefined;
  readonly found: FittedPartRow | undefined;
  readonly current: FittedPartRow | undefined;
}

/** Electrolytics from mains to output side, by net, then by designator as a person counts. */
export function capacitorsInOrder(
  detail: Pick<JobDetail, "nets" | "positions" | "fittedParts">,
): readonly PlacedCapacitor[] {
  const rank = (net: Net | undefined) => (net ? sections.indexOf(net.section) : sections.length);
  return detail.positions
    .filter((position) => position.kind === "electrolytic")
    .map((position) => ({
      position,
      net: detail.nets.find((net) => net.id === position.netId),
      found: foundPart(detail.fittedParts, position.id),
      current: currentPart(detail.fittedParts, position.id),
    }))
    .sort(
      (a, b) =>
        rank(a.net) - rank(b.net) ||
        (a.net?.name ?? "").localeCompare(b.net?.name ?? "") ||
        a.position.designator.localeCompare(b.position.designator, "en", { numeric: true }),
    );
}

/** Rails in the order of their sections. */
export function netsInOrder(detail: Pick<JobDetail, "nets">): readonly Net[] {
  return [...detail.nets].sort(
    (a, b) => sections.indexOf(a.section) - sections.indexOf(b.section) || a.name.localeCompare(b.name),
  );
}
