import { describe, expect, it } from "vitest";
import css from "./theme.css?raw";

/** The colours of one scheme, by variable. */
function palette(selector: string): Readonly<Record<string, string>> {
  const block = css.slice(css.indexOf(`${selector} {`)).split("}")[0] ?? "";
  return Object.fromEntries(
    [...block.matchAll(/--([a-z-]+):\s*(#[0-9a-f]{6})/g)].map(([, name, value]) => [name, value]),
  );
}

function channels(hex: string): readonly [number, number, number] {
  const part = (at: number) => Number.parseInt(hex.slice(at, at + 2), 16) / 255;
  return [part(1), part(3), part(5)];
}

const linear = (value: number) => (value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4);

/** Relative luminance and contrast of WCAG 2.2. */
function luminance([r, g, b]: readonly [number, number, number]): number {
  return 0.2126 * linear(r) + 0.7152 * linear(g) + 0.0722 * linear(b);
}
function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(channels(a)), luminance(channels(b))].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

const schemes = { light: palette(":root"), dark: palette(':root[data-mantine-color-scheme="dark"]') };
const grounds = ["ground", "panel", "wash", "board", "board-mains"];

describe.each(Object.entries(schemes))("the %s scheme", (_name, colours) => {
  const colour = (name: string) => {
    const value = colours[name];
    if (!value) throw new Error(`no colour ${name}`);
    return value;
  };
  it.each(grounds)("can be read on %s by WCAG AA", (ground) => {
    for (const text of ["ink", "ink-soft", "accent", "sound", "worn", "failed"]) {
      expect(contrast(colour(text), colour(ground)), `${text} on ${ground}`).toBeGreaterThanOrEqual(
        text === "ink" ? 7 : 4.5,
      );
    }
  });
  it("can be read in fields and on filled buttons", () => {
    expect(contrast(colour("ink"), colour("field"))).toBeGreaterThanOrEqual(7);
    expect(contrast(colour("on-accent"), colour("accent"))).toBeGreaterThanOrEqual(4.5);
    expect(contrast(colour("panel"), colour("failed"))).toBeGreaterThanOrEqual(4.5);
  });
  it("shows glyphs, stripes and edges against the sleeve", () => {
    for (const mark of ["sound", "worn", "failed", "unknown", "stripe", "can-edge"]) {
      expect(contrast(colour(mark), colour("sleeve")), mark).toBeGreaterThanOrEqual(3);
    }
  });
});

it("both schemes define the same colours", () => {
  expect(Object.keys(schemes.dark).sort()).toEqual(Object.keys(schemes.light).sort());
});
