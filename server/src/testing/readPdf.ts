import { extractText, getDocumentProxy } from "unpdf";

/** What stands in a file, page by page; signs that look alike are one. */
export async function readPdf(bytes: Buffer): Promise<{ readonly pages: readonly string[]; readonly text: string }> {
  const proxy = await getDocumentProxy(new Uint8Array(bytes));
  const { text } = await extractText(proxy, { mergePages: false });
  const pages = text.map((page) => page.normalize("NFKC").replace(/\s+/g, " "));
  return { pages, text: pages.join(" ") };
}

/** Width and height of its first page, in points. */
export async function pdfPageSize(bytes: Buffer): Promise<readonly [number, number]> {
  const proxy = await getDocumentProxy(new Uint8Array(bytes));
  const [, , width = 0, height = 0] = (await proxy.getPage(1)).view;
  return [Math.round(width), Math.round(height)];
}
