import type { LabelStock } from "@pale-cap/contract";
import type { Label } from "@pale-cap/wording";
import type { Content } from "pdfmake/interfaces";
import { toString as qrText } from "qrcode";
import { pdfOf, words } from "./fonts";
import { ink } from "./look";

/** A length on paper in points. */
const mm = (millimetres: number) => (millimetres * 72) / 25.4;

/** Where labels lie, in millimetres: a sheet of three by seven, or one by one. */
const stocks = {
  sheet: { page: [210, 297], label: [63.5, 38.1], origin: [7.25, 15.15], step: [66, 38.1], across: 3, count: 21 },
  single: { page: [62, 29], label: [62, 29], origin: [0, 0], step: [0, 0], across: 1, count: 1 },
} as const;

/** Nothing is printed so near an edge. */
const marginMillimetres = 2.5;
const warningFill = "#f2c200";

/**
 * Labels as a file: on a sheet from a place on that is still free, or one a page.
 *
 * @param firstPlace counted from 1, row by row; a sheet that was begun goes on there
 */
export async function labelsPdf(
  labels: readonly Label[],
  {
    stock,
    firstPlace = 1,
    madeAt,
  }: { readonly stock: LabelStock; readonly firstPlace?: number | undefined; readonly madeAt: Date },
): Promise<Buffer> {
  const { page, label: size, origin, step, across, count } = stocks[stock];
  const content: Content[] = [];
  const first = stock === "sheet" ? firstPlace - 1 : 0;
  for (const [n, label] of labels.entries()) {
    const at = (first + n) % count;
    const left = origin[0] + (at % across) * step[0];
    const top = origin[1] + Math.floor(at / across) * step[1];
    // What stands absolutely takes no room: a page goes on until somebody ends it.
    const isNewPage = n > 0 && at === 0;
    content.push(...(await drawn(label, { left, top, width: size[0], height: size[1] }, isNewPage)));
  }
  return pdfOf(
    {
      pageSize: { width: mm(page[0]), height: mm(page[1]) },
      pageMargins: 0,
      info: { title: labels.map((one) => one.title).join(", ") },
      content,
    },
    madeAt,
  );
}

/** A code as a drawing; its quiet zone is inside its width. */
export const codeSvg = (text: string): Promise<string> =>
  qrText(text, { type: "svg", margin: 4, errorCorrectionLevel: "M" });

interface Place {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

async function drawn(label: Label, place: Place, isNewPage: boolean): Promise<readonly Content[]> {
  const { left, top, width, height } = place;
  const codeSide = label.code === null ? 0 : Math.min(height - 2 * marginMillimetres, 22);
  const textWidth = width - 2 * marginMillimetres - codeSide;
  const at = (x: number, y: number) => ({ absolutePosition: { x: mm(x), y: mm(y) } });
  const ground: Content[] = label.isWarning
    ? [
        {
          svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${mm(width)}" height="${mm(height)}"><rect x="0.6" y="0.6" width="${width - 1.2}" height="${height - 1.2}" fill="${warningFill}" stroke="#000000" stroke-width="1.2"/></svg>`,
          ...at(left, top),
        },
      ]
    : [];
  const text: Content = {
    columns: [
      {
        width: mm(textWidth),
        stack: [
          words(label.title, {
            fontSize: 18,
            bold: true,
            color: label.isWarning ? "#000000" : ink,
          }),
          ...label.lines.map((line) =>
            words(line, { fontSize: label.isWarning ? 9.5 : 8, color: "#000000", lineHeight: 1.02 }),
          ),
        ],
      },
    ],
    ...at(left + marginMillimetres, top + marginMillimetres),
  };
  const code: Content[] =
    label.code === null
      ? []
      : [
          {
            svg: await codeSvg(label.code),
            width: mm(codeSide),
            ...at(left + width - marginMillimetres - codeSide, top + (height - codeSide) / 2),
          },
        ];
  const pageBreak: Content[] = isNewPage ? [{ text: " ", fontSize: 1, pageBreak: "before" }] : [];
  return [...pageBreak, ...ground, text, ...code];
}
