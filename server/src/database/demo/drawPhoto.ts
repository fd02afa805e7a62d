import sharp from "sharp";
import type { DemoJob } from "./demoJob";

/** What a camera sees of a board. */
export interface Drawn {
  readonly board: { readonly widthMetres: number; readonly depthMetres: number; readonly barrierMetres: number | null };
  readonly capacitors: readonly {
    readonly at: string;
    readonly can: readonly [number, number, number];
    readonly place: readonly [number, number] | null;
    readonly stripeDegrees: number | null;
  }[];
  readonly outlines: DemoJob["outlines"];
  readonly looked: DemoJob["looked"];
}

/** A made-up photo: the demo board as a camera could see it, from the parts side or from the solder side. */
export async function drawPhoto(demo: Drawn, side: "board_top" | "board_bottom"): Promise<Buffer> {
  const scale = 1400 / demo.board.widthMetres;
  const width = 1400;
  const height = Math.round(demo.board.depthMetres * scale);
  const millimetre = scale / 1e3;
  const isTop = side === "board_top";
  const cans = demo.capacitors.flatMap(({ at, can, place, stripeDegrees }) => {
    if (!place) return [];
    const [x, y] = [place[0] * millimetre, place[1] * millimetre];
    const radius = (can[0] / 2) * millimetre;
    if (!isTop) return joints(width - x, y, (can[2] / 2) * millimetre, millimetre);
    const isBrowned = demo.looked[at]?.some((sign) => sign === "vented" || sign === "crust");
    return [
      isBrowned ? `<circle cx="${x}" cy="${y}" r="${radius * 1.7}" fill="#3d2a14" opacity="0.35"/>` : "",
      `<circle cx="${x + 5}" cy="${y + 7}" r="${radius}" fill="#000" opacity="0.3"/>`,
      `<circle cx="${x}" cy="${y}" r="${radius}" fill="#23262b" stroke="#0e1013" stroke-width="3"/>`,
      `<g transform="rotate(${stripeDegrees ?? 0} ${x} ${y})"><path d="M${x + radius * 0.62} ${y - radius * 0.75}A${radius} ${radius} 0 0 1 ${x + radius * 0.62} ${y + radius * 0.75}Z" fill="#b9b6ab"/></g>`,
      `<circle cx="${x}" cy="${y}" r="${radius * 0.74}" fill="#c9cbcc"/>`,
      `<path d="M${x - radius * 0.5} ${y}h${radius}M${x} ${y - radius * 0.5}v${radius}" stroke="#8f9293" stroke-width="3"/>`,
      isBrowned
        ? `<ellipse cx="${x + radius * 0.15}" cy="${y}" rx="${radius * 0.4}" ry="${radius * 0.3}" fill="#6b4a22"/>`
        : "",
    ];
  });
  const blocks = demo.outlines.map(([, kind, left, top, wide, deep]) => {
    const [x, y] = [left * millimetre, top * millimetre];
    const fill = kind === "heat-sink" ? "#9ea2a3" : kind === "transformer" ? "#d8b64a" : "#2c2f2b";
    return isTop
      ? `<rect x="${x}" y="${y}" width="${wide * millimetre}" height="${deep * millimetre}" rx="6" fill="${fill}" stroke="#15170f" stroke-width="3"/>`
      : joints(
          width - x - (wide / 2) * millimetre,
          y + (deep / 2) * millimetre,
          (wide / 3) * millimetre,
          millimetre,
        ).join("");
  });
  const barrier = (demo.board.barrierMetres ?? 0) * scale;
  const slot = isTop ? barrier : width - barrier;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">
    <defs><radialGradient id="g" cx="0.4" cy="0.3" r="0.9"><stop offset="0" stop-color="${isTop ? "#b08a4e" : "#3f6b45"}"/><stop offset="1" stop-color="${isTop ? "#7c5a2b" : "#22402a"}"/></radialGradient></defs>
    <rect width="100%" height="100%" fill="url(#g)"/>
    <path d="M${slot} ${height * 0.1}V${height * 0.9}" stroke="#1a1409" stroke-width="10" opacity="0.55"/>
    ${blocks.join("")}${cans.join("")}</svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 82 }).toBuffer();
}

/** Two solder joints with their piece of copper. */
function joints(x: number, y: number, half: number, millimetre: number): string[] {
  return [x - half, x + half].map(
    (at) =>
      `<path d="M${at} ${y}v${14 * millimetre}" stroke="#5d8a56" stroke-width="${3 * millimetre}"/><circle cx="${at}" cy="${y}" r="${1.5 * millimetre}" fill="#cfd2cf" stroke="#8b8f8b" stroke-width="2"/>`,
  );
}
