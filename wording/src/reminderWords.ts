import type { ReminderRow } from "@pale-cap/contract";
import { ageText, dayText, logTime } from "./times";

/** What a job wants somebody to think of, and since when or until when. */
export function reminderWords({ kind, at, note, designator }: ReminderRow, nowMilliseconds: number): string {
  const isPast = Date.parse(at) <= nowMilliseconds;
  const place = designator === null ? "" : ` at ${designator}`;
  switch (kind) {
    case "call_back":
      return `Call back ${isPast ? `since ${dayText(at)}` : `on ${dayText(at)}`}: ${note ?? "no word of what about"}`;
    case "cured":
      return isPast ? `Glue${place} has cured since ${logTime(at)}` : `Glue${place} cures until ${logTime(at)}`;
    case "burn_in":
      return isPast ? `Burn-in ended ${logTime(at)}: look at it` : `Burn-in ends about ${logTime(at)}`;
    case "due":
      return isPast
        ? nowMilliseconds - Date.parse(at) < 86_400_000
          ? "Due today"
          : `Due ${dayText(at)}, ${ageText(at, nowMilliseconds)} late`
        : `Due ${dayText(at)}`;
  }
}
