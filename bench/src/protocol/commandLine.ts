/** One command of a line: its header in capitals, whether it asks, and its arguments as typed. */
export interface Command {
  readonly header: string;
  readonly isQuery: boolean;
  readonly parameters: readonly string[];
}

/** Longest line that is read; anything longer is thrown away with an error. */
export const longestLine = 400;

/** Splits `HEADer:PART? one,two` into its parts; null for a line that is none. */
export function parseCommand(line: string): Command | null {
  const match = /^\s*(\*?[A-Za-z][A-Za-z0-9:]*)(\?)?(?:\s+(.*?))?\s*$/.exec(line);
  if (!match?.[1] || line.length > longestLine) return null;
  return { header: match[1].toUpperCase(), isQuery: match[2] === "?", parameters: splitParameters(match[3] ?? "") };
}

/** Commas part arguments, but not inside quotes. */
function splitParameters(text: string): readonly string[] {
  if (text === "") return [];
  const found = text.match(/"[^"]*"|[^,]+/g) ?? [];
  return found.map((one) =>
    one
      .trim()
      .replace(/^"(.*)"$/, "$1")
      .trim(),
  );
}
