import type { PhotoEdit, PhotoRow } from "@pale-cap/contract";
import { newId } from "../../api/newId";
import { useEditPhotoMutation } from "../../job/photoApi";
import { useInTurn } from "../../job/useInTurn";
import { asProblem } from "../../ui/ProblemNote";

type PhotoValues = PhotoEdit["values"];

/** Changes a photo's words or marks, made from what is stored when its turn comes. */
export function useEditPhoto() {
  const inTurn = useInTurn();
  const [editPhoto, { error, isLoading }] = useEditPhotoMutation();
  const edit = (photoId: string, change: (photo: PhotoRow) => Partial<PhotoValues>) =>
    inTurn(async ({ job, photos }) => {
      const photo = photos.find((one) => one.id === photoId);
      if (!photo) return;
      const { id, version, kind, caption, marks, isRemoved } = photo;
      const stored: PhotoValues = { kind, caption, marks: [...marks], isRemoved };
      const body: PhotoEdit = { writeId: newId(), version, values: { ...stored, ...change(photo) } };
      await editPhoto({ jobId: job.id, photoId: id, body });
    });
  return [edit, { problem: asProblem(error), isLoading }] as const;
}
