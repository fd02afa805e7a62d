import type { PhotoEdit, PhotoRow, Problem } from "@pale-cap/contract";
import { useState } from "react";
import { newId } from "../../api/newId";
import { useEditPhotoMutation } from "../../job/photoApi";
import { useInTurn } from "../../job/useInTurn";
import { asProblem } from "../../ui/ProblemNote";

type PhotoValues = PhotoEdit["values"];

/** Changes a photo's words or marks, made from what is stored when its turn comes. */
export function useEditPhoto() {
  const inTurn = useInTurn();
  const [editPhoto, { isLoading }] = useEditPhotoMutation();
  const [problem, setProblem] = useState<Problem>();
  const edit = (photoId: string, change: (photo: PhotoRow) => Partial<PhotoValues>) =>
    inTurn(async ({ job, photos }) => {
      const photo = photos.find((one) => one.id === photoId);
      if (!photo) return;
      const { id, version, kind, caption, marks, isRemoved } = photo;
      const stored: PhotoValues = { kind, caption, marks: [...marks], isRemoved };
      const body: PhotoEdit = { writeId: newId(), version, values: { ...stored, ...change(photo) } };
      setProblem(asProblem((await editPhoto({ jobId: job.id, photoId: id, body })).error));
    }, setProblem);
  return [edit, { problem, isLoading }] as const;
}
