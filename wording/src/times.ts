import dayjs from "dayjs";

/** Clock time today, else day and time: what a log line needs. */
export function logTime(instant: string): string {
  const moment = dayjs(instant);
  return moment.isSame(dayjs(), "day") ? moment.format("HH:mm") : moment.format("D MMM HH:mm");
}

export const dayText = (instant: string): string => dayjs(instant).format("D MMM YYYY");

/** Day and time together, for paper. */
export const momentText = (instant: string): string => dayjs(instant).format("D MMM YYYY, HH:mm");

/** Age in the largest unit that says enough. */
export function ageText(instant: string, now: number): string {
  const minutes = Math.max(0, Math.round((now - Date.parse(instant)) / 60_000));
  if (minutes < 60) return `${minutes} min`;
  const hours = Math.round(minutes / 60);
  if (hours < 36) return `${hours} h`;
  return `${Math.round(hours / 24)} days`;
}

/** Seconds as a person says them. */
export function durationText(seconds: number): string {
  if (seconds < 100) return `${Number(seconds.toPrecision(2))}\u00a0s`;
  return seconds < 5400 ? `${Math.round(seconds / 60)}\u00a0min` : `${Number((seconds / 3600).toPrecision(2))}\u00a0h`;
}

/** Hours of life in years or months; beyond 15 years nobody should print a number. */
export function lifeText(hours: number): string {
  const years = hours / 8766;
  if (years >= 14.98) return "over\u00a015\u00a0years";
  return years >= 2
    ? `${Number(years.toPrecision(2))}\u00a0years`
    : `${Number((years * 12).toPrecision(2))}\u00a0months`;
}
