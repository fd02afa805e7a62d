import type { ReportBlock } from "@pale-cap/contract";
import { runsOf } from "./fonts";
import { soft } from "./look";

type Chart = Extract<ReportBlock, { kind: "chart" }>;
type Photo = Extract<ReportBlock, { kind: "photo" }>;

const colours = ["#1f6f8b", "#a5610c", "#3a7d44", "#6b6b6b"] as const;
const dashes = ["", "7 4", "2 3", "10 3 2 3"] as const;
/** The red-brown of everything that has failed. */
const limitColour = "#a3342a";

const escaped = (text: string) => text.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll('"', "&quot;");

/** Text in a drawing, each run in a font that has its signs. */
function label(text: string, x: number, y: number, more = ""): string {
  const runs = runsOf(text).map((run) => `<tspan font-family="${run.font}">${escaped(run.text)}</tspan>`);
  return `<text x="${x.toFixed(1)}" y="${y.toFixed(1)}" font-size="8" fill="${soft}" ${more}>${runs.join("")}</text>`;
}

/** Round steps that cover a span with four to eight lines. */
export function ticksBetween(low: number, high: number): readonly number[] {
  const span = high - low || Math.abs(high) || 1;
  const rough = span / 5;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = ([1, 2, 5, 10].find((one) => one * power >= rough) ?? 10) * power;
  const first = Math.ceil(low / step - 1e-9);
  const last = Math.floor(high / step + 1e-9);
  return Array.from({ length: Math.max(last - first + 1, 0) }, (_, n) => Number(((first + n) * step).toPrecision(10)));
}

const chartSize = { width: 500, height: 170, left: 46, right: 12, top: 8, bottom: 30 };

/** A chart as vectors: points joined by lines, limits dashed, told apart by dashes and not by colour alone. */
export function chartSvg({ x, y, lines, limits }: Chart): string {
  const { width, height, left, right, top, bottom } = chartSize;
  const points = lines.flatMap((one) => one.points);
  const xs = points.map((one) => one[0]);
  const ys = [...points.map((one) => one[1]), ...limits];
  const [lowX, highX] = padded(Math.min(...xs), Math.max(...xs), 0);
  const [lowY, highY] = padded(Math.min(...ys), Math.max(...ys), 0.08);
  const atX = (value: number) => left + ((value - lowX) / (highX - lowX)) * (width - left - right);
  const atY = (value: number) => height - bottom - ((value - lowY) / (highY - lowY)) * (height - top - bottom);
  const grid = [
    ...ticksBetween(lowX, highX).flatMap((one) => [
      `<path d="M${atX(one).toFixed(1)} ${top}V${height - bottom}" stroke="#d5dcdf" stroke-width="0.5"/>`,
      label(String(one), atX(one), height - bottom + 10, 'text-anchor="middle"'),
    ]),
    ...ticksBetween(lowY, highY).flatMap((one) => [
      `<path d="M${left} ${atY(one).toFixed(1)}H${width - right}" stroke="#d5dcdf" stroke-width="0.5"/>`,
      label(String(one), left - 4, atY(one) + 3, 'text-anchor="end"'),
    ]),
  ];
  const drawn = lines.map(({ points: own }, n) => {
    const colour = colours[n % colours.length];
    const dash = dashes[n % dashes.length];
    const path = own
      .map(([px, py], at) => `${at === 0 ? "M" : "L"}${atX(px).toFixed(1)} ${atY(py).toFixed(1)}`)
      .join("");
    const dots =
      own.length > 40
        ? ""
        : own
            .map(
              ([px, py]) => `<circle cx="${atX(px).toFixed(1)}" cy="${atY(py).toFixed(1)}" r="1.8" fill="${colour}"/>`,
            )
            .join("");
    return `<path d="${path}" fill="none" stroke="${colour}" stroke-width="1.3"${dash ? ` stroke-dasharray="${dash}"` : ""}/>${dots}`;
  });
  const bounds = limits.map(
    (one) =>
      `<path d="M${left} ${atY(one).toFixed(1)}H${width - right}" stroke="${limitColour}" stroke-width="0.9" stroke-dasharray="4 3"/>`,
  );
  const names =
    lines.length < 2
      ? ""
      : lines
          .map((one, n) =>
            label(`${one.name}${dashes[n % dashes.length] ? " (dashed)" : ""}`, left + 6 + n * 110, top + 8),
          )
          .join("");
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">`,
    ...grid,
    ...bounds,
    ...drawn,
    names,
    label(x, (left + width - right) / 2, height - 6, 'text-anchor="middle"'),
    label(
      y,
      10,
      (top + height - bottom) / 2,
      `text-anchor="middle" transform="rotate(-90 10 ${(top + height - bottom) / 2})"`,
    ),
    "</svg>",
  ].join("");
}

function padded(low: number, high: number, ratio: number): readonly [number, number] {
  if (high - low > 0) return [low - ratio * (high - low), high + ratio * (high - low)];
  const room = Math.abs(low) * 0.1 || 1;
  return [low - room, high + room];
}

/** Pen marks over a photo, in points of the page: a pale edge under the ink keeps them readable on any ground. */
export function marksSvg({ marks }: Pick<Photo, "marks">, width: number, height: number): string {
  const unit = Math.max(width, height) / 100;
  const pen = "#c8102e";
  const stroked = (path: string) =>
    `<path d="${path}" fill="none" stroke="#ffffff" stroke-width="${unit * 1.5}"/><path d="${path}" fill="none" stroke="${pen}" stroke-width="${unit * 0.8}"/>`;
  const drawn = marks.map((mark) => {
    const [x, y] = [mark.x * width, mark.y * height];
    if (mark.kind === "dot")
      return `<circle cx="${x}" cy="${y}" r="${unit * 1.3}" fill="${pen}" stroke="#ffffff" stroke-width="${unit * 0.5}"/>`;
    if (mark.kind === "text") {
      const said = runsOf(mark.text ?? "").map(
        (run) => `<tspan font-family="${run.font}">${escaped(run.text)}</tspan>`,
      );
      return `<text x="${x}" y="${y}" font-size="${unit * 3.4}" fill="${pen}">${said.join("")}</text>`;
    }
    const [toX, toY] = [(mark.toX ?? mark.x) * width, (mark.toY ?? mark.y) * height];
    const angle = Math.atan2(toY - y, toX - x);
    const barb = (turn: number) =>
      `${toX - unit * 3.2 * Math.cos(angle + turn)} ${toY - unit * 3.2 * Math.sin(angle + turn)}`;
    return stroked(`M${x} ${y}L${toX} ${toY}M${barb(0.45)}L${toX} ${toY}L${barb(-0.45)}`);
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">${drawn.join("")}</svg>`;
}
