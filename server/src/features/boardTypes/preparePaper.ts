import sharp from "sharp";
import { fileProblem } from "../../http/receiveUpload";

/** More pixels than any scan of a schematic has. */
const mostPixels = 120e6;

export interface PreparedPaper {
  readonly bytes: Buffer;
  readonly mediaType: string;
}

/**
 * A paper as it is kept. Pictures are decoded and encoded anew at their own size: place, camera and owner that a
 * telephone wrote beside the pixels are gone with that. A PDF is kept as it came.
 */
export async function preparePaper(upload: Buffer): Promise<PreparedPaper> {
  const mediaType = mediaTypeOf(upload);
  if (mediaType === "application/pdf") return { bytes: upload, mediaType };
  try {
    const picture = sharp(upload, { limitInputPixels: mostPixels, failOn: "error" }).autoOrient();
    const encoded = mediaType === "image/png" ? picture.png() : picture.jpeg({ quality: 92 });
    return { bytes: await encoded.toBuffer(), mediaType };
  } catch {
    throw fileProblem("paper", "The picture is damaged or too large to be decoded. Nothing was stored.");
  }
}

/** Told by the first bytes, not by what the sender says it is. */
function mediaTypeOf(bytes: Buffer): string {
  if (bytes.subarray(0, 5).toString("latin1") === "%PDF-") return "application/pdf";
  if (bytes.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]))) return "image/png";
  if (bytes.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff]))) return "image/jpeg";
  throw fileProblem("paper", "A paper is a PDF, PNG or JPEG file. Nothing was stored.");
}

const endings: Readonly<Record<string, RegExp>> = {
  "application/pdf": /\.pdf$/i,
  "image/png": /\.png$/i,
  "image/jpeg": /\.jpe?g$/i,
};
const usualEnding: Readonly<Record<string, string>> = {
  "application/pdf": ".pdf",
  "image/png": ".png",
  "image/jpeg": ".jpg",
};
const longestName = 100;

/** A name that says what the file is: no folders, no invisible or turned-round characters, and its own ending. */
export function cleanPaperName(name: string, mediaType: string): string {
  const plain = name
    .normalize("NFC")
    .replace(/^.*[\\/]/, "")
    .replace(/[\p{C}\p{Zl}\p{Zp}]/gu, "")
    .replace(/[<>:"|?*]/g, "_")
    .replace(/\s+/g, " ")
    .replace(/^[. ]+|[. ]+$/g, "");
  const stem = endings[mediaType]?.test(plain) ? plain.replace(/\.[^.]*$/, "") : plain;
  const ending = endings[mediaType]?.test(plain) ? (/\.[^.]*$/.exec(plain)?.[0] ?? "") : (usualEnding[mediaType] ?? "");
  return `${stem.slice(0, longestName) || "paper"}${ending}`;
}
