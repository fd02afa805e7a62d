import { createRequire } from "node:module";
import * as fontkit from "fontkit";
import pdfmake from "pdfmake";
import type { Content, TDocumentDefinitions } from "pdfmake/interfaces";

const require = createRequire(import.meta.url);
const atkinson = (weight: number, style: "normal" | "italic") =>
  require.resolve(
    `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-${style}.woff`,
  );
const atkinsonExtended = require.resolve(
  "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-400-normal.woff",
);
const dejavu = (weight: number) =>
  require.resolve(`@fontsource/dejavu-sans/files/dejavu-sans-latin-${weight}-normal.woff`);

const files = {
  Atkinson: {
    normal: atkinson(400, "normal"),
    bold: atkinson(700, "normal"),
    italics: atkinson(400, "italic"),
    bolditalics: atkinson(700, "italic"),
  },
  /** Letters of more languages. */
  Extended: same(atkinsonExtended),
  /** Signs of the trade that the other has not: µ, Ω, ≤, √. */
  Signs: { normal: dejavu(400), bold: dejavu(700), italics: dejavu(400), bolditalics: dejavu(700) },
};
export type FontName = keyof typeof files;

function same(file: string) {
  return { normal: file, bold: file, italics: file, bolditalics: file };
}

let isReady = false;
function ready(): void {
  if (isReady) return;
  pdfmake.addFonts(files);
  // Nothing that stands in a report is ever fetched.
  pdfmake.setUrlAccessPolicy(() => false);
  const known = new Set<string>(Object.values(files).flatMap((one) => Object.values(one)));
  pdfmake.setLocalAccessPolicy((path) => known.has(path));
  isReady = true;
}

interface Glyphs {
  hasGlyphForCodePoint(code: number): boolean;
}
const opened = new Map<FontName, Glyphs>();
function glyphs(name: FontName): Glyphs {
  let font = opened.get(name);
  if (!font) {
    const file = fontkit.openSync(files[name].normal);
    if (!("hasGlyphForCodePoint" in file)) throw new Error(`${name} is a collection of fonts.`);
    font = file;
    opened.set(name, font);
  }
  return font;
}

/** Whichever font has the sign; one that none has becomes a question mark, seen as such. */
function fontOf(sign: string): { readonly font: FontName; readonly sign: string } {
  const code = sign.codePointAt(0) ?? 0;
  const names: readonly FontName[] = ["Atkinson", "Extended", "Signs"];
  const font = names.find((name) => glyphs(name).hasGlyphForCodePoint(code));
  return font ? { font, sign } : { font: "Atkinson", sign: "?" };
}

export interface Run {
  readonly text: string;
  readonly font: FontName;
}

/** Text cut where the font has to change. */
export function runsOf(text: string): readonly Run[] {
  const runs: { text: string; font: FontName }[] = [];
  for (const one of text.replace(/[\t\r\n]+/g, " ")) {
    const { font, sign } = fontOf(one);
    const last = runs.at(-1);
    if (last && (last.font === font || one === " ")) last.text += sign;
    else runs.push({ text: sign, font });
  }
  return runs;
}

/** Text for a page: an inline of its own for each font. */
export const words = (text: string, more: object = {}): Content => ({
  text: runsOf(text).map((run) => ({ ...run })),
  ...more,
});

/** A page's bytes; the same document gives the same bytes. */
export async function pdfOf(document: TDocumentDefinitions, madeAt: Date): Promise<Buffer> {
  ready();
  const info = { ...document.info, creationDate: madeAt, modDate: madeAt, producer: "Pale Cap", creator: "Pale Cap" };
  const made = pdfmake.createPdf({
    defaultStyle: { font: "Atkinson", fontSize: 10, lineHeight: 1.15 },
    language: "en",
    ...document,
    info,
  } as TDocumentDefinitions);
  return Buffer.from(await made.getBuffer());
}
