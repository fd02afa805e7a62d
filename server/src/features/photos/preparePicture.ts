import { photoLimits } from "@pale-cap/contract";
import sharp, { type Sharp } from "sharp";
import { pictureProblem } from "./receivePicture";

export interface PreparedPicture {
  readonly bytes: Buffer;
  readonly thumbnail: Buffer;
  readonly mediaType: string;
  readonly widthPixels: number;
  readonly heightPixels: number;
}

const encoders: Readonly<Record<string, (image: Sharp) => Sharp>> = {
  jpeg: (image) => image.jpeg({ quality: 86 }),
  png: (image) => image.png(),
  webp: (image) => image.webp({ quality: 86 }),
};

/**
 * Decodes a picture whole and encodes it anew, upright and not larger than needed. What was in the file beside the pixels
 * (place, camera, owner) is gone with that; what does not decode is refused.
 */
export async function preparePicture(upload: Buffer): Promise<PreparedPicture> {
  const open = () => sharp(upload, { limitInputPixels: photoLimits.uploadPixels, failOn: "error" });
  const { format, width = 0, height = 0 } = await metadataOf(open);
  const encode = encoders[format ?? ""];
  if (!encode) throw pictureProblem(`A ${format ?? "file of this kind"} is not taken. JPEG, PNG and WebP are.`);
  if (width * height > photoLimits.uploadPixels) {
    throw pictureProblem(
      `${Math.round((width * height) / 1e6)} megapixels are too many; ${photoLimits.uploadPixels / 1e6} are the most.`,
    );
  }
  const scaled = (side: number) =>
    open().autoOrient().resize({ width: side, height: side, fit: "inside", withoutEnlargement: true });
  try {
    const { data, info } = await encode(scaled(photoLimits.storedSidePixels)).toBuffer({ resolveWithObject: true });
    const thumbnail = await encode(scaled(photoLimits.thumbnailSidePixels)).toBuffer();
    return {
      bytes: data,
      thumbnail,
      mediaType: `image/${format}`,
      widthPixels: info.width,
      heightPixels: info.height,
    };
  } catch {
    throw pictureProblem("The picture is damaged and does not decode to its end. Nothing was stored.");
  }
}

/** An empty file already fails at opening, others when they are read. */
async function metadataOf(open: () => Sharp) {
  try {
    return await open().metadata();
  } catch {
    throw pictureProblem("This is not a picture that can be read. JPEG, PNG and WebP are taken.");
  }
}
