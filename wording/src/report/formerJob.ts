import type { FormerJob } from "@pale-cap/contract";
import { loadedRails } from "@pale-cap/core";
import { openPointWords } from "../lensWords";
import { verdictLabels } from "../verdictWords";
import { fittedNow } from "./partWords";
import { railLine } from "./railLine";
import type { ReportModel } from "./reportModel";

/** What a closed job says to whoever has its unit on the bench again: what was read, promised and left open. */
export function formerJobOf(model: ReportModel): FormerJob {
  const { detail, rounds, devices, outcome, points, accepted } = model;
  const { id, number, warrantyUntil, complaint, verdictSummary } = detail.job;
  const bad = [...rounds.flatMap((one) => one.rows), ...devices].flatMap(({ designator, verdict }) =>
    verdict === "failed" || verdict === "worn" ? [`${designator} ${verdictLabels[verdict]}`] : [],
  );
  return {
    ...{ id, number, warrantyUntil, complaint, outcome, handedOverAt: detail.job.handedOverAt ?? "" },
    summary: verdictSummary ?? rounds.at(-1)?.summary ?? null,
    replaced: fittedNow(model).map((one) => one.designator),
    bad: [...new Set(bad)],
    proved: loadedRails(detail.nets).map((net) => railLine(net, model, true).words),
    left: points.map((point) => {
      const reason = accepted.get(point.key);
      return reason === undefined ? openPointWords(point) : `${openPointWords(point)} Accepted: ${reason}`;
    }),
  };
}
