import type { PaperSize, ReportBlock, ReportDocument } from "@pale-cap/contract";
import type { Content, TDocumentDefinitions } from "pdfmake/interfaces";
import { pdfOf, words } from "./fonts";
import { ink, pageSizes, soft } from "./look";
import { chartSvg, marksSvg } from "./svg";

/** A photo as it goes on a page: its bytes as a data address. */
export type Pictures = ReadonlyMap<string, string>;

const line = "#c3ccd0";
/** Between the margins of either paper. */
const textWidth = 500;

/**
 * A report on paper: what the document says and no word more, page numbers beside whose it is.
 *
 * @param madeAt stands in the file as its date: the same report is the same file
 */
export function reportPdf(
  document: ReportDocument,
  { paper, pictures, madeAt }: { readonly paper: PaperSize; readonly pictures: Pictures; readonly madeAt: Date },
): Promise<Buffer> {
  const isWide = document.audience === "record";
  const definition: TDocumentDefinitions = {
    pageSize: pageSizes[paper],
    pageMargins: [48, 48, 48, 54],
    info: { title: `${document.title}, ${document.device}`, subject: "Repair report" },
    content: [...head(document), ...flowing(document.blocks, pictures, isWide)],
    footer: (page, count) => ({
      columns: [
        words(document.foot, { color: soft, fontSize: 8 }),
        words(`${document.title}, page ${page} of ${count}`, {
          color: soft,
          fontSize: 8,
          alignment: "right",
          width: 170,
        }),
      ],
      margin: [48, 16, 48, 0],
    }),
  };
  return pdfOf(definition, madeAt);
}

/** A heading never stands alone at the foot of a page: it goes with what it heads, where that is not longer than a page can be. */
function flowing(blocks: readonly ReportBlock[], pictures: Pictures, isWide: boolean): readonly Content[] {
  const flow: Content[] = [];
  for (let n = 0; n < blocks.length; n++) {
    const [block, next] = [blocks[n] as ReportBlock, blocks[n + 1]];
    if (block.kind === "heading" && next && next.kind !== "heading" && isShort(next)) {
      flow.push({ stack: [drawn(block, pictures, isWide), drawn(next, pictures, isWide)], unbreakable: true });
      n++;
    } else flow.push(drawn(block, pictures, isWide));
  }
  return flow;
}

const mostRowsTogether = 12;
function isShort(block: ReportBlock): boolean {
  if (block.kind === "table") return block.rows.length <= mostRowsTogether;
  if (block.kind === "list") return block.items.join(" ").length < 1500;
  return block.kind !== "text" || block.words.length < 1500;
}

function head({ title, device, dates, notices }: ReportDocument): readonly Content[] {
  return [
    {
      columns: [
        {
          svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 44 44" width="34" height="34"><circle cx="22" cy="22" r="19" fill="#e8ecee" stroke="${ink}" stroke-width="2.4"/><path d="M30.6 5a19 19 0 0 1 0 34z" fill="${ink}"/></svg>`,
          width: 44,
        },
        {
          stack: [words(title, { fontSize: 17, bold: true, color: ink }), words(device, { color: soft })],
          width: "*",
        },
        {
          width: 170,
          layout: "noBorders",
          fontSize: 9,
          table: {
            body: dates.map(([name, value]) => [words(name, { color: soft }), words(value, { alignment: "right" })]),
            widths: ["auto", "*"],
          },
        },
      ],
      columnGap: 8,
      margin: [0, 0, 0, 6],
    },
    ...notices.map((one): Content => words(one, { bold: true, margin: [0, 2, 0, 2] })),
  ];
}

function drawn(block: ReportBlock, pictures: Pictures, isWide: boolean): Content {
  switch (block.kind) {
    case "heading":
      return words(block.words, { fontSize: 12, bold: true, color: ink, margin: [0, 10, 0, 3] });
    case "text":
      return words(block.words, {
        margin: [0, 0, 0, 4],
        ...(block.tone === "dim" ? { color: soft } : {}),
        ...(block.tone === "warning" ? { bold: true } : {}),
      });
    case "list":
      return { ul: block.items.map((one) => words(one, { margin: [0, 0, 0, 1] })), margin: [0, 0, 0, 4] };
    case "table":
      return tabled(block, isWide);
    case "chart":
      return {
        stack: [words(block.name, { fontSize: 9, color: soft }), { svg: chartSvg(block), width: textWidth }],
        unbreakable: true,
        margin: [0, 2, 0, 6],
      };
    case "photo":
      return photo(block, pictures);
  }
}

function tabled(block: Extract<ReportBlock, { kind: "table" }>, isWide: boolean): Content {
  const columns = block.heads.length;
  const isRight = (column: number) => block.figures?.includes(column) ?? false;
  const fontSize = columns > 8 ? 7 : columns > 5 ? 8 : 9;
  const row = (cells: readonly string[], more: object = {}) =>
    cells.map((cell, column) => words(cell, { ...more, ...(isRight(column) ? { alignment: "right" } : {}) }));
  return {
    table: {
      headerRows: 1,
      // The first column is a name, the others share what is left; two columns stand close.
      widths: block.heads.map((_, column) =>
        columns === 2 && column === 1 ? 90 : isWide && columns > 5 ? "auto" : column === 0 ? "auto" : "*",
      ),
      body: [row(block.heads, { bold: true, color: soft }), ...block.rows.map((cells) => row(cells))],
      dontBreakRows: true,
    },
    layout: {
      hLineWidth: (n: number) => (n === 0 ? 0 : 0.5),
      vLineWidth: () => 0,
      hLineColor: () => line,
      paddingLeft: (n: number) => (n === 0 ? 0 : 3),
      paddingRight: () => 3,
      paddingTop: () => 2,
      paddingBottom: () => 2,
    },
    fontSize,
    margin: [0, 2, 0, 6],
  };
}

function photo(block: Extract<ReportBlock, { kind: "photo" }>, pictures: Pictures): Content {
  const picture = pictures.get(block.photoId);
  const width = Math.min(textWidth, (360 * block.widthPixels) / Math.max(block.heightPixels, 1));
  const height = (width * block.heightPixels) / Math.max(block.widthPixels, 1);
  return {
    stack: [
      ...(picture
        ? ([
            { image: picture, width },
            ...(block.marks.length > 0
              ? [{ svg: marksSvg(block, width, height), relativePosition: { x: 0, y: -height } }]
              : []),
          ] as Content[])
        : [words("The picture is not stored any more.", { color: soft })]),
      words(block.caption, { fontSize: 9, color: soft }),
    ],
    unbreakable: true,
    margin: [0, 4, 0, 8],
  };
}
