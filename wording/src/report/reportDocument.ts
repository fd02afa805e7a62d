import type { ReportBlock, ReportDifference, ReportDocument } from "@pale-cap/contract";

export const heading = (words: string): ReportBlock => ({ kind: "heading", words });
export const paragraph = (words: string, tone?: "dim" | "warning"): ReportBlock =>
  tone ? { kind: "text", words, tone } : { kind: "text", words };

/** A heading with what stands below it; nothing where there is nothing to stand there. */
export function section(title: string, blocks: readonly (ReportBlock | null)[]): readonly ReportBlock[] {
  const own = blocks.filter((one) => one !== null);
  return own.length === 0 ? [] : [heading(title), ...own];
}

/** A list; null where it would be empty. */
export const list = (items: readonly string[]): ReportBlock | null =>
  items.length === 0 ? null : { kind: "list", items };

/** A table; null where it would have no row. Columns in which nothing stands are left out. */
export function table(
  name: string,
  heads: readonly string[],
  rows: readonly (readonly string[])[],
  figures: readonly number[] = [],
): ReportBlock | null {
  if (rows.length === 0) return null;
  const kept = heads.flatMap((_, column) =>
    column === 0 || rows.some((row) => (row[column] ?? "") !== "") ? [column] : [],
  );
  return {
    kind: "table",
    name,
    heads: kept.map((column) => heads[column] ?? ""),
    rows: rows.map((row) => kept.map((column) => row[column] ?? "")),
    figures: kept.flatMap((column, place) => (figures.includes(column) ? [place] : [])),
  };
}

/** Every word of a document, in its order: for searching, and for telling two versions apart. */
export function documentLines(document: ReportDocument): readonly string[] {
  const of = (block: ReportBlock): readonly string[] => {
    switch (block.kind) {
      case "heading":
      case "text":
        return [block.words];
      case "list":
        return block.items;
      case "table":
        return block.rows.map((row) => `${block.name}: ${row.filter((cell) => cell !== "").join(", ")}`);
      case "chart":
        return block.lines.map(
          (line) => `${block.name}, ${line.name}: ${line.points.map((one) => one.join(" ")).join("; ")}`,
        );
      case "photo":
        return [`${block.caption} ${block.marks.map((mark) => mark.text ?? mark.kind).join(", ")}`.trim()];
    }
  };
  return [
    ...document.dates.map(([name, words]) => `${name}: ${words}`),
    ...document.notices,
    ...document.blocks.flatMap(of),
  ];
}

/** What a later version says that an earlier did not, and what it says no more; in the order in which it stands there. */
export function documentDifference(before: ReportDocument, after: ReportDocument): ReportDifference {
  const [old, now] = [documentLines(before), documentLines(after)];
  const without = (lines: readonly string[], others: readonly string[]) => {
    const left = new Map<string, number>();
    for (const one of others) left.set(one, (left.get(one) ?? 0) + 1);
    return lines.filter((one) => {
      const count = left.get(one) ?? 0;
      left.set(one, count - 1);
      return count <= 0;
    });
  };
  return { added: without(now, old), gone: without(old, now) };
}
