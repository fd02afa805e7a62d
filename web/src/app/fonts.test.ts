import { readdirSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import * as fontkit from "fontkit";
import { describe, expect, it } from "vitest";

const require = createRequire(import.meta.url);
const root = join(dirname(fileURLToPath(import.meta.url)), "../../..");
/** The first file of a package's folder of fonts that fits. */
const font = (name: string, file: string) =>
  fontkit.openSync(join(dirname(require.resolve(`${name}/package.json`)), "files", file)) as fontkit.Font;
const shipped = {
  text: [
    font("@fontsource-variable/atkinson-hyperlegible-next", "atkinson-hyperlegible-next-latin-wght-normal.woff2"),
    font("@fontsource-variable/atkinson-hyperlegible-next", "atkinson-hyperlegible-next-latin-ext-wght-normal.woff2"),
    font("@fontsource/dejavu-sans", "dejavu-sans-latin-400-normal.woff2"),
  ],
  figures: [
    font("@fontsource-variable/atkinson-hyperlegible-mono", "atkinson-hyperlegible-mono-latin-wght-normal.woff2"),
    font("@fontsource-variable/atkinson-hyperlegible-mono", "atkinson-hyperlegible-mono-latin-ext-wght-normal.woff2"),
    font("@fontsource/dejavu-mono", "dejavu-mono-latin-400-normal.woff2"),
  ],
};
/** Spaces and joiners that no font draws. */
const undrawn: ReadonlySet<number> = new Set([0xa0, 0x202f, 0x2060, 0xfe0e, 0xfe0f]);
const isDrawn = (code: number) => code > 0x9f && !undrawn.has(code);

function sources(folder: string): readonly string[] {
  return readdirSync(join(root, folder), { recursive: true, withFileTypes: true })
    .filter((one) => one.isFile() && /\.(tsx?|json)$/.test(one.name) && !/\.test\.tsx?$/.test(one.name))
    .map((one) => join(one.parentPath, one.name));
}

/** Every character beyond ASCII that stands in a source from which a text of the product comes. */
function characters(): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  for (const file of ["web/src", "wording/src", "contract/src", "core/src"].flatMap(sources)) {
    const text = readFileSync(file, "utf8").replace(/\\u([0-9a-f]{4})/g, (_, hex) =>
      String.fromCharCode(Number.parseInt(hex, 16)),
    );
    for (const character of text) {
      if (isDrawn(character.codePointAt(0) as number)) {
        found.set(character, file.slice(root.length));
      }
    }
  }
  return found;
}

describe("the shipped fonts", () => {
  it.each(Object.entries(shipped))("have every character of the product's texts, for %s", (_name, fonts) => {
    const missing = [...characters()].filter(
      ([character]) => !fonts.some((one) => one.hasGlyphForCodePoint(character.codePointAt(0) as number)),
    );
    expect(missing).toEqual([]);
  });
  it("would miss the signs of the trade without the second one", () => {
    const [first] = shipped.text;
    expect([..."µΩ≤≥≈→"].filter((one) => first?.hasGlyphForCodePoint(one.codePointAt(0) as number))).toEqual([]);
  });
});
