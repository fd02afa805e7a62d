import { type NewPhoto, newPhotoSchema, photoLimits } from "@pale-cap/contract";
import type { Request, Response } from "express";
import multer, { MulterError } from "multer";
import { HttpProblem } from "../../http/problems";
import { parseBody } from "../../http/validate";

/** In memory only: a refused picture leaves nothing on the disk. */
const upload = multer({
  storage: multer.memoryStorage(),
  limits: { fileSize: photoLimits.uploadBytes, files: 1, fields: 4, fieldSize: 8 * 1024 },
}).single("picture");

/** Takes one picture and what is said about it out of a form; anything else is a problem in plain words. */
export async function receivePicture(
  request: Request,
  response: Response,
): Promise<{ readonly photo: NewPhoto; readonly bytes: Buffer }> {
  if (!request.is("multipart/form-data")) {
    throw new HttpProblem("unsupported_media_type", "A picture comes as multipart/form-data.");
  }
  await new Promise<void>((resolve, reject) => {
    upload(request, response, (error: unknown) => (error ? reject(uploadProblem(error)) : resolve()));
  });
  const { photo } = (request.body ?? {}) as { photo?: unknown };
  const parsed = parseBody(newPhotoSchema, typeof photo === "string" ? parseJson(photo) : undefined);
  if (!request.file) throw pictureProblem("No picture came with it. Nothing was stored.");
  return { photo: parsed, bytes: request.file.buffer };
}

/** A refusal of the picture itself, at its field. */
export function pictureProblem(detail: string): HttpProblem {
  return new HttpProblem("invalid_body", detail, { errors: [{ path: "picture", message: "cannot be taken" }] });
}

function uploadProblem(error: unknown): HttpProblem {
  if (error instanceof MulterError && error.code === "LIMIT_FILE_SIZE") {
    const megabytes = Math.round(photoLimits.uploadBytes / 1024 / 1024);
    return new HttpProblem("body_too_large", `The picture is larger than ${megabytes} MB. Nothing was stored.`);
  }
  return pictureProblem("The upload broke off or is no form with one picture. Nothing was stored.");
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new HttpProblem("malformed_json", "What is said about the picture is not valid JSON.");
  }
}
