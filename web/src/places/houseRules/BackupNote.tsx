import { ageText, backupWarning, momentText, sizeText } from "@pale-cap/wording";
import { useBackupsQuery } from "./backupApi";
import classes from "./houseRules.module.css";

/** How old and how large the newest backup is, and what is at stake where it is too old. */
export function BackupNote({ warnDays }: { readonly warnDays: number }) {
  const { data } = useBackupsQuery(undefined, { refetchOnMountOrArgChange: true });
  if (!data) return null;
  const { newest, count } = data;
  const now = Date.now();
  const warning = backupWarning(data, warnDays, now);
  return (
    <div className={classes.backup} data-warns={warning !== null || undefined}>
      {newest && (
        <p>
          Last backup {ageText(newest.at, now)} ago, {momentText(newest.at)}: {sizeText(newest.sizeBytes)},{" "}
          {newest.rowCount} rows. {count} {count === 1 ? "is" : "are"} kept.
        </p>
      )}
      {warning && <p role="alert">{warning}</p>}
      {data.isOurs && (
        <p className={classes.source}>
          <code>npm run backup</code> takes one while everything runs; <code>npm run restore</code> brings one back into
          a new database and compares every row.
        </p>
      )}
    </div>
  );
}
