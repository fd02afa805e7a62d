import type { Request, Response } from "express";
import multer, { MulterError } from "multer";
import type { AnyObject, ObjectSchema } from "yup";
import { FewAtOnce } from "./fewAtOnce";
import { HttpProblem } from "./problems";
import { parseBody } from "./validate";

/** How one kind of upload comes: the field of the file, the field of what is said about it, and its limits. */
export interface UploadKind<T extends AnyObject> {
  /** Names the file's field, and the thing itself in sentences. */
  readonly noun: string;
  readonly aboutField: string;
  readonly about: ObjectSchema<T>;
  readonly mostBytes: number;
}

/** So many files are read into memory at once; the others wait on the line, where they take none. */
const atOnce = new FewAtOnce(6, 60);

/** Takes one file and what is said about it out of a form; anything else is a problem in plain words. */
export function receiveUpload<T extends AnyObject>(kind: UploadKind<T>) {
  /** In memory only: a refused file leaves nothing on the disk. */
  const upload = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: kind.mostBytes, files: 1, fields: 4, fieldSize: 8 * 1024 },
  }).single(kind.noun);
  return async (request: Request, response: Response): Promise<{ readonly about: T; readonly bytes: Buffer }> => {
    if (!request.is("multipart/form-data")) {
      throw new HttpProblem("unsupported_media_type", `A ${kind.noun} comes as multipart/form-data.`);
    }
    await atOnce.take(
      () =>
        new Promise<void>((resolve, reject) => {
          upload(request, response, (error: unknown) => (error ? reject(uploadProblem(error, kind)) : resolve()));
        }),
    );
    const said = ((request.body ?? {}) as Record<string, unknown>)[kind.aboutField];
    const about = parseBody(kind.about, typeof said === "string" ? parseJson(said, kind.noun) : undefined);
    if (!request.file) throw fileProblem(kind.noun, `No ${kind.noun} came with it. Nothing was stored.`);
    return { about, bytes: request.file.buffer };
  };
}

/** A refusal of the file itself, at its field. */
export function fileProblem(noun: string, detail: string): HttpProblem {
  return new HttpProblem("invalid_body", detail, { errors: [{ path: noun, code: "not_taken" }] });
}

function uploadProblem(
  error: unknown,
  { noun, mostBytes }: { readonly noun: string; readonly mostBytes: number },
): HttpProblem {
  if (error instanceof MulterError && error.code === "LIMIT_FILE_SIZE") {
    const megabytes = Math.round(mostBytes / 1024 / 1024);
    return new HttpProblem("body_too_large", `The ${noun} is larger than ${megabytes} MB. Nothing was stored.`);
  }
  return fileProblem(noun, `The upload broke off or is no form with one ${noun}. Nothing was stored.`);
}

function parseJson(text: string, noun: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new HttpProblem("malformed_json", `What is said about the ${noun} is not valid JSON.`);
  }
}
