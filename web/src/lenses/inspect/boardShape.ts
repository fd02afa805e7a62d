import type { BoardValues } from "@pale-cap/contract";

type Outline = BoardValues["outline"];
type LidZones = BoardValues["lidZones"];

/** What a line of the shape fields says, or what in it is not understood. */
export type ShapeText<T> = { readonly value: T } | { readonly problem: string };

const number = "(\\d+(?:[.,]\\d+)?)";
const corner = new RegExp(`^${number}/${number}$`);
const zone = new RegExp(`^@?${number}/${number}\\s+${number}x${number}\\s+h?${number}$`, "i");
const metres = (text: string | undefined) => Number((text ?? "").replace(",", ".")) / 1e3;
const millimetres = (value: number) => String(Number((value * 1e3).toPrecision(6)));

/** Corners in millimetres, as `0/0 150/0 150/80 0/104`; nothing: a rectangle. */
export function parseOutline(
  text: string,
  board: Pick<BoardValues, "widthMetres" | "depthMetres">,
): ShapeText<Outline> {
  const words = text.trim().split(/\s+/).filter(Boolean);
  if (words.length === 0) return { value: null };
  const points: [number, number][] = [];
  for (const word of words) {
    const match = corner.exec(word);
    if (!match) return { problem: `“${word}” is no corner: write x/y in millimetres.` };
    const [x, y] = [metres(match[1]), metres(match[2])];
    if (x > board.widthMetres + 1e-9 || y > board.depthMetres + 1e-9) {
      return { problem: `${word} lies outside the board's width and depth.` };
    }
    points.push([x, y]);
  }
  return points.length < 3 ? { problem: "An outline needs three corners at least." } : { value: points };
}

export const printOutline = (outline: Outline) =>
  (outline ?? []).map(([x, y]) => `${millimetres(x)}/${millimetres(y)}`).join(" ");

/** One zone a line, as `90/0 60x104 h18`: its corner, its size, its height. */
export function parseLidZones(text: string): ShapeText<LidZones> {
  const zones: LidZones = [];
  for (const line of text
    .split(/[\n;]+/)
    .map((one) => one.trim())
    .filter(Boolean)) {
    const match = zone.exec(line);
    if (!match) return { problem: `“${line}” is no zone: write x/y width x depth h height, as 90/0 60x104 h18.` };
    const [, x, y, width, depth, height] = match;
    zones.push({
      xMetres: metres(x),
      yMetres: metres(y),
      widthMetres: metres(width),
      depthMetres: metres(depth),
      heightMetres: metres(height),
    });
  }
  return zones.length > 12 ? { problem: "Twelve zones at most." } : { value: zones };
}

export const printLidZones = (zones: LidZones) =>
  zones
    .map(
      (one) =>
        `${millimetres(one.xMetres)}/${millimetres(one.yMetres)} ${millimetres(one.widthMetres)}x${millimetres(one.depthMetres)} h${millimetres(one.heightMetres)}`,
    )
    .join("\n");
