import { newPhotoSchema, photoLimits } from "@pale-cap/contract";
import { fileProblem, receiveUpload } from "../../http/receiveUpload";

/** Takes one picture and what is said about it out of a form. */
export const receivePicture = receiveUpload({
  noun: "picture",
  aboutField: "photo",
  about: newPhotoSchema,
  mostBytes: photoLimits.uploadBytes,
});

export const pictureProblem = (detail: string) => fileProblem("picture", detail);
