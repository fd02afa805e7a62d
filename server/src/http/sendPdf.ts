import type { Response } from "express";

/** A file that is looked at before it is kept. */
export function sendPdf(response: Response, name: string, bytes: Uint8Array): void {
  response.set({ "Content-Type": "application/pdf", "Content-Disposition": `inline; filename="${name}.pdf"` });
  response.end(Buffer.from(bytes));
}
