import type { BenchPage } from "@pale-cap/contract";

/** Every main view: the name of its picture (some are only tested), demo job, lens, and what to select there. */
export const views = [
  { file: "bench", path: "/", heading: "Halden 24" },
  { file: "intake", model: "Halden 24", lens: "intake" },
  {
    file: "intake-photos",
    model: "Halden 24",
    lens: "intake?page=photos",
    click: "Open photo, board, parts side",
    isOnlyTested: true,
  },
  { file: "make-safe", model: "Terrace 43", lens: "make-safe" },
  { file: "inspect", model: "Halden 24", lens: "inspect", part: "C21" },
  { file: "measure", model: "Halden 24", lens: "measure", part: "C14" },
  { file: "judge", model: "Halden 24", lens: "judge" },
  { file: "judge-part", model: "Halden 24", lens: "judge", part: "C15", isOnlyTested: true },
  { file: "judge-other-parts", model: "Halden 24", lens: "judge", part: "BR1", scheme: "dark", isOnlyTested: true },
  { file: "ripple", model: "Halden 24", lens: "judge", click: "Ripple of 5 V" },
  {
    file: "ripple-mains",
    model: "Logger 8",
    lens: "judge",
    click: "Ripple of 15 V",
    view: "Whole capture",
    isOnlyTested: true,
  },
  { file: "choose", model: "Halden 24", lens: "choose", part: "C21" },
  { file: "choose-transistor", model: "Halden 24", lens: "choose", part: "Q1", isOnlyTested: true },
  { file: "fit", model: "Halden 24", lens: "choose", part: "C4", show: "Parts that fit" },
  { file: "rework", model: "Logger 8", lens: "rework" },
  { file: "prove", model: "Duo brick", lens: "prove" },
  { file: "rework-list", model: "Halden 24", lens: "rework-list", isOnlyTested: true },
  { file: "proof", model: "Duo brick", lens: "proof", isOnlyTested: true },
  { file: "hand-over", model: "Duo brick", lens: "hand-over", isOnlyTested: true },
  { file: "parts", path: "/parts", heading: "Put parts in a drawer", click: "A1" },
  { file: "other-parts", path: "/parts/other", heading: "of this kind", isOnlyTested: true },
  { file: "casebook", path: "/casebook?q=halden", heading: "Went in", isOnlyTested: true },
  { file: "model", path: "/casebook/kind?maker=Brambix&model=Vesper%2027", heading: "What had failed, by place" },
  { file: "series", path: "/casebook/series/one?series=midge%20hk&against=heron", heading: "How long it lives" },
  { file: "changes", path: "/casebook/changes", heading: "by default", isOnlyTested: true },
  { file: "quality", path: "/casebook/quality", heading: "Chances that were told in circuit", isOnlyTested: true },
  { file: "instruments", path: "/instruments", heading: "On the simulated bench", isOnlyTested: true },
  { file: "practice-supplies", path: "/practice", heading: "Any number of others", isOnlyTested: true },
  { file: "lesson", path: "/practice/lessons/two_ripples", heading: "Ripple by its frequency", isOnlyTested: true },
  { file: "practice-progress", path: "/practice/progress", heading: "Skill by skill", isOnlyTested: true },
  { file: "practice-lists", path: "/practice/lists", heading: "A new list", isOnlyTested: true },
  { file: "accounts", path: "/people/accounts", heading: "A new account", isOnlyTested: true },
  { file: "audit", path: "/people/audit", heading: "Lines are only ever added", isOnlyTested: true },
  { file: "house-rules", path: "/house-rules", heading: "House rules", isOnlyTested: true },
  { file: "working-safely", path: "/working-safely", heading: "Working safely", isOnlyTested: true },
  { file: "report", model: "Counter 2 display", lens: "report" },
] as const;

/** Jobs of the demo, open and closed. */
export async function demoLines(
  address: string,
  load: (path: string) => Promise<BenchPage> = async (path) => (await fetch(`${address}/api${path}`)).json(),
): Promise<BenchPage["lines"]> {
  const pages = await Promise.all(["open", "closed"].map((state) => load(`/bench?state=${state}`)));
  return pages.flatMap((one) => one.lines);
}
