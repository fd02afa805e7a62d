import { SegmentedControl } from "@mantine/core";
import { dayText, deviceName } from "@pale-cap/wording";
import { useState } from "react";
import { Allowed } from "../../job/Allowed";
import { useJob } from "../../job/JobContext";
import { BoardPanel } from "../../job/panels/BoardPanel";
import { LensLayout } from "../../job/panels/LensLayout";
import { useVerdictLook } from "../../job/useVerdictLook";
import { EntryFieldset } from "../../ui/closedEntry";
import { Pane } from "../../ui/Pane";
import { useKeys } from "../../ui/useKeys";
import { CallBackCard } from "./CallBackCard";
import { receivedFields } from "./CounterNotes";
import { ErasureCard } from "./ErasureCard";
import { FormerJobCard } from "./FormerJobCard";
import { IntakeForm } from "./IntakeForm";
import { type IntakePage, intakePages, useIntakePage } from "./intakePages";
import { OpeningPage } from "./OpeningPage";
import { PhotoStage } from "./PhotoStage";
import { PhotosPage } from "./PhotosPage";
import { UnitsPage } from "./UnitsPage";

const receivedKeys = [
  { key: "v", label: "as received: output volts", id: receivedFields.outputVolts },
  { key: "w", label: "as received: watts", id: receivedFields.inputWatts },
  { key: "i", label: "as received: lights", id: receivedFields.lights },
  { key: "s", label: "as received: sound", id: receivedFields.sound },
] as const;

/** What it does wrong, what was agreed, and whose it is; its label, photos, opening and brothers. */
export function IntakeLens() {
  const { detail } = useJob();
  const { job } = detail;
  const look = useVerdictLook();
  const [page, setPage] = useIntakePage();
  const [photoId, setPhotoId] = useState<string | null>(null);
  const photo = page === "photos" ? detail.photos.find((one) => one.id === photoId && !one.isRemoved) : undefined;
  useKeys(
    "Intake",
    receivedKeys.map(({ key, label, id }) => ({
      key,
      label,
      action: () => {
        setPage("counter");
        // The page may have to appear first.
        requestAnimationFrame(() => document.getElementById(id)?.focus());
      },
    })),
  );
  return (
    <LensLayout
      paneWidth="wide"
      board={
        photo ? (
          <PhotoStage key={photo.id} photo={photo} onClose={() => setPhotoId(null)} />
        ) : (
          <BoardPanel look={look} />
        )
      }
      pane={
        <Pane
          hasOwnEntries
          title={`Intake of ${deviceName(job)}`}
          note={`Job ${String(job.number).padStart(4, "0")}, taken in ${dayText(job.createdAt)}`}
          actions={
            <SegmentedControl
              aria-label="Page of intake"
              size="sm"
              data={Object.entries(intakePages).map(([value, label]) => ({ value, label }))}
              value={page}
              onChange={(value) => setPage(value as IntakePage)}
            />
          }
        >
          {page === "counter" && <FormerJobCard />}
          {/* The form stays mounted: what was typed and not saved survives a look at the photos. */}
          <EntryFieldset>
            <IntakeForm key={job.id} job={job} page={page} />
          </EntryFieldset>
          {page === "counter" && (
            <>
              <CallBackCard />
              <Allowed right="erase">
                <ErasureCard />
              </Allowed>
            </>
          )}
          {page === "photos" && <PhotosPage selectedId={photo?.id ?? null} onSelect={setPhotoId} />}
          {page === "opening" && (
            <EntryFieldset>
              <OpeningPage />
            </EntryFieldset>
          )}
          {page === "units" && <UnitsPage />}
        </Pane>
      }
    />
  );
}
