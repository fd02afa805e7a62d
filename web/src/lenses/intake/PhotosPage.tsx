import { Button, FileButton, NativeSelect } from "@mantine/core";
import type { Problem } from "@pale-cap/contract";
import { type PhotoKind, type PhotoRow, photoKinds, photoLimits } from "@pale-cap/contract";
import { photoKindLabels } from "@pale-cap/wording";
import { useEffect, useRef, useState } from "react";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { photoThumbnail, useAddPhotoMutation } from "../../job/photoApi";
import { useInTurn } from "../../job/useInTurn";
import { CommittedText } from "../../ui/CommittedText";
import { EntryFieldset, useIsEntryClosed } from "../../ui/closedEntry";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import classes from "./photos.module.css";
import { useEditPhoto } from "./useEditPhoto";

interface PhotosPageProps {
  readonly selectedId: string | null;
  readonly onSelect: (photoId: string | null) => void;
}

const accepted = photoLimits.mediaTypes.join(",");

/** Why a file cannot be a photo, in a sentence; the server looks again, and deeper. */
function fileProblem(file: File): string | null {
  const megabytes = photoLimits.uploadBytes / 1024 / 1024;
  if (!(photoLimits.mediaTypes as readonly string[]).includes(file.type)) {
    return `${file.name || "This"} is no JPEG, PNG or WebP picture. Nothing was stored.`;
  }
  if (file.size > photoLimits.uploadBytes) return `${file.name} is larger than ${megabytes} MB. Nothing was stored.`;
  return null;
}

/** Photos by file, camera, paste or drop; a thumbnail opens the photo in place of the board. */
export function PhotosPage({ selectedId, onSelect }: PhotosPageProps) {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const resetFile = useRef<() => void>(null);
  const resetCamera = useRef<() => void>(null);
  const [kind, setKind] = useState<PhotoKind>("label");
  const [refusal, setRefusal] = useState<string | null>(null);
  const [addPhoto, { isLoading }] = useAddPhotoMutation();
  const [unsent, setUnsent] = useState<Problem>();
  const inTurn = useInTurn();
  const isClosed = useIsEntryClosed();
  const [edit, editState] = useEditPhoto();
  const shown = detail.photos.filter((photo) => !photo.isRemoved).sort((a, b) => a.takenAt.localeCompare(b.takenAt));
  const removed = detail.photos.filter((photo) => photo.isRemoved);
  const selected = shown.find((photo) => photo.id === selectedId);

  async function upload(files: readonly File[]) {
    setRefusal(null);
    // Else the same file could not be chosen again after a refusal.
    resetFile.current?.();
    resetCamera.current?.();
    for (const picture of files) {
      const problem = fileProblem(picture);
      if (problem) return setRefusal(problem);
      const photo = { id: newId(), kind, caption: null, takenAt: pageClock.moment(), personId };
      const refusal = await inTurn(
        async () => asProblem((await addPhoto({ jobId: detail.job.id, photo, picture })).error),
        (unsent) => unsent,
      );
      setUnsent(refusal);
      if (refusal) return;
      onSelect(photo.id);
    }
  }

  useEffect(() => {
    if (isClosed) return;
    const onPaste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      void upload(files);
    };
    document.addEventListener("paste", onPaste);
    return () => document.removeEventListener("paste", onPaste);
  });

  return (
    <>
      {!isClosed && (
        <Part title="Take in a photo" aside={<span className={text.soft}>or paste it, or drop it here</span>}>
          {/* biome-ignore lint/a11y/noStaticElementInteractions: dropping is a third way beside two buttons and paste */}
          <div
            className={classes.drop}
            onDragOver={(event) => event.preventDefault()}
            onDrop={(event) => {
              event.preventDefault();
              void upload([...event.dataTransfer.files]);
            }}
          >
            <NativeSelect
              label="It shows"
              value={kind}
              data={photoKinds.map((value) => ({ value, label: photoKindLabels[value] }))}
              onChange={(event) => setKind(event.currentTarget.value as PhotoKind)}
            />
            <FileButton
              accept={accepted}
              multiple
              resetRef={resetFile}
              onChange={(files) => void upload(files)}
              inputProps={{ "aria-label": "Photo file" }}
            >
              {(props) => (
                <Button {...props} variant="filled" loading={isLoading}>
                  Choose a file
                </Button>
              )}
            </FileButton>
            <FileButton
              accept={accepted}
              capture="environment"
              resetRef={resetCamera}
              onChange={(file) => void upload(file ? [file] : [])}
              inputProps={{ "aria-label": "Photo by camera" }}
            >
              {(props) => (
                <Button {...props} loading={isLoading}>
                  Camera
                </Button>
              )}
            </FileButton>
          </div>
          {refusal && (
            <div role="alert" className={classes.refusal}>
              {refusal}
            </div>
          )}
          <ProblemNote problem={unsent} />
          <p className={text.soft}>
            JPEG, PNG or WebP up to {photoLimits.uploadBytes / 1024 / 1024} MB. Each is encoded anew: place and camera
            in the file are dropped.
          </p>
        </Part>
      )}
      <Part title={shown.length === 0 ? "No photos yet" : `${shown.length} photo${shown.length === 1 ? "" : "s"}`}>
        {shown.length === 0 && (
          <p className={text.soft}>Label, both sides of the board, connectors: taken before anything is moved.</p>
        )}
        <ul className={classes.strip}>
          {shown.map((photo) => (
            <li key={photo.id}>
              <button
                type="button"
                aria-pressed={photo.id === selectedId}
                aria-label={photoName(photo)}
                onClick={() => onSelect(photo.id === selectedId ? null : photo.id)}
              >
                <img src={photoThumbnail(photo.id)} alt="" />
                <span>{photo.caption ?? photoKindLabels[photo.kind]}</span>{" "}
                {photo.marks.length > 0 && <span className={text.soft}>{marksText(photo.marks.length)}</span>}
              </button>
            </li>
          ))}
        </ul>
        <ProblemNote problem={editState.problem} />
        {selected && (
          <EntryFieldset key={selected.id}>
            <PhotoWords
              photo={selected}
              onChange={(values) => void edit(selected.id, () => values)}
              onRemove={() => {
                onSelect(null);
                void edit(selected.id, () => ({ isRemoved: true }));
              }}
            />
          </EntryFieldset>
        )}
        {removed.length > 0 && (
          <details className={classes.removed}>
            <summary>Taken off ({removed.length})</summary>
            {removed.map((photo) => (
              <Button key={photo.id} size="xs" onClick={() => void edit(photo.id, () => ({ isRemoved: false }))}>
                Bring back {photo.caption ?? photoKindLabels[photo.kind]}
              </Button>
            ))}
          </details>
        )}
      </Part>
    </>
  );
}

function PhotoWords(props: {
  readonly photo: PhotoRow;
  readonly onChange: (values: { kind?: PhotoKind; caption?: string | null }) => void;
  readonly onRemove: () => void;
}) {
  const { photo } = props;
  return (
    <div className={classes.words}>
      <CommittedText
        label="Caption"
        name={`caption ${photo.id}`}
        value={photo.caption ?? ""}
        maxLength={120}
        onCommit={(caption) => props.onChange({ caption: caption.trim() || null })}
      />
      <NativeSelect
        label="Shows"
        value={photo.kind}
        data={photoKinds.map((value) => ({ value, label: photoKindLabels[value] }))}
        onChange={(event) => props.onChange({ kind: event.currentTarget.value as PhotoKind })}
      />
      <Button onClick={props.onRemove}>Take it off the job</Button>
    </div>
  );
}

/** What is seen under the picture, in its words and their order, and what it is of where a caption stands in its place. */
function photoName({ kind, caption, marks }: PhotoRow): string {
  const seen = [caption ?? photoKindLabels[kind], marksText(marks.length)];
  return ["Open photo", ...seen, caption && photoKindLabels[kind]].filter(Boolean).join(", ");
}

const marksText = (count: number) => (count === 0 ? "" : `${count} mark${count === 1 ? "" : "s"}`);
