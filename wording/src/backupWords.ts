import type { BackupState } from "@pale-cap/contract";

/** A size as a person says it. */
export function sizeText(bytes: number): string {
  const [value, unit] = bytes < 1e6 ? [bytes / 1e3, "kB"] : bytes < 1e9 ? [bytes / 1e6, "MB"] : [bytes / 1e9, "GB"];
  return `${Number(value.toPrecision(2))}\u00a0${unit}`;
}

const dayMilliseconds = 86_400_000;

/** What is missing, in a sentence; null while a backup is young enough. */
export function backupWarning({ isOurs, newest }: BackupState, warnDays: number, now: number): string | null {
  if (!isOurs) return "This database is not Pale Cap's own: its backups are up to whoever runs it.";
  if (!newest) return "There is no backup: what is on this disk is all there is.";
  const days = Math.floor((now - Date.parse(newest.at)) / dayMilliseconds);
  return days >= warnDays
    ? `The last backup is ${days} days old: everything entered since is lost with the disk.`
    : null;
}
