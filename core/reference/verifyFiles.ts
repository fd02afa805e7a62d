import { compare, type ReferenceCase } from "./compare";
import { families, runFamily } from "./families";

/** A file of cases, read by the caller: nothing under core touches a disk. */
export interface CaseFile {
  readonly name: string;
  readonly read: () => string;
}

interface Tally {
  cases: number;
  failed: number;
  worst: number;
}

/** Runs every case of the files: a line a case, a summary line a family. An unknown family or a bad file fails. */
export function verifyFiles(files: readonly CaseFile[]): {
  readonly lines: readonly string[];
  readonly isGood: boolean;
} {
  const lines: string[] = [];
  const tallies = new Map<string, Tally>();
  let isGood = true;
  for (const file of files) {
    let cases: readonly ReferenceCase[];
    try {
      const parsed: unknown = JSON.parse(file.read());
      if (!Array.isArray(parsed)) throw new Error("not a list of cases");
      cases = parsed;
    } catch (error) {
      lines.push(`FAIL ${file.name} cannot be read: ${(error as Error).message}`);
      isGood = false;
      continue;
    }
    for (const one of cases) {
      const { line, isOk, worst } = verifyCase(one);
      lines.push(line);
      const tally = tallies.get(one.family) ?? { cases: 0, failed: 0, worst: 0 };
      tally.cases += 1;
      tally.failed += isOk ? 0 : 1;
      tally.worst = Math.max(tally.worst, worst);
      tallies.set(one.family, tally);
    }
  }
  for (const [family, tally] of tallies) {
    lines.push(
      `${family}: ${tally.cases - tally.failed} of ${tally.cases} passed, worst=${tally.worst.toExponential(2)}`,
    );
    if (tally.failed > 0) isGood = false;
  }
  return { lines, isGood };
}

function verifyCase(one: ReferenceCase): { readonly line: string; readonly isOk: boolean; readonly worst: number } {
  const { family, id, inputs, expected, tolerance } = one;
  if (!Object.hasOwn(families, family)) return { line: `FAIL ${family} ${id} unknown family`, isOk: false, worst: 0 };
  try {
    const { failure, worstRelativeError } = compare(runFamily(family, inputs), expected, tolerance);
    if (!failure) {
      return {
        line: `ok ${family} ${id} worst=${worstRelativeError.toExponential(2)}`,
        isOk: true,
        worst: worstRelativeError,
      };
    }
    const facts = `${failure.key || "result"} got=${JSON.stringify(failure.got)} want=${JSON.stringify(failure.want)}`;
    return { line: `FAIL ${family} ${id} ${facts}`, isOk: false, worst: worstRelativeError };
  } catch (error) {
    return { line: `FAIL ${family} ${id} threw ${(error as Error).message}`, isOk: false, worst: 0 };
  }
}
