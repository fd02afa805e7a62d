import { Button, FileButton } from "@mantine/core";
import type { BundleJob, BundlePreview } from "@pale-cap/contract";
import { bundleStateLabels, dayText } from "@pale-cap/wording";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { useAppSelector } from "../../app/store/hooks";
import { useImportBundleMutation, usePreviewBundleMutation } from "../../job/bundleApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./bench.module.css";

/** Jobs of another shop, shown before any of them is taken in. */
export function BundlePanel() {
  const personId = useAppSelector((state) => state.workplace.personId);
  const [file, setFile] = useState<File | null>(null);
  const [look, looked] = usePreviewBundleMutation();
  const [take, taken] = useImportBundleMutation();
  const reset = useRef<() => void>(null);
  const preview = taken.data ?? looked.data;
  const newCount = preview?.jobs.filter((one) => one.state === "new").length ?? 0;
  const isBarred = preview?.jobs.some((one) => one.state === "conflict") ?? false;
  function open(chosen: File | null): void {
    reset.current?.();
    setFile(chosen);
    taken.reset();
    if (chosen) void look({ file: chosen, personId });
  }
  return (
    <>
      <p className={text.soft}>
        A bundle holds whole jobs as open files. What it would bring is shown first; what stands here already is never
        changed by it.
      </p>
      <FileButton
        accept=".zip,application/zip"
        resetRef={reset}
        onChange={open}
        inputProps={{ "aria-label": "Bundle" }}
      >
        {(props) => (
          <Button size="compact-sm" loading={looked.isLoading} {...props}>
            Look into a bundle
          </Button>
        )}
      </FileButton>
      <ProblemNote problem={asProblem(looked.error ?? taken.error)} />
      {preview && file && !looked.error && (
        <div className={classes.bundle} role="status">
          <Told preview={preview} />
          {taken.data ? (
            <p>Taken in.</p>
          ) : newCount === 0 && preview.boardTypes.new.length === 0 ? (
            <p>Nothing in it is new here.</p>
          ) : (
            <Button
              variant="filled"
              loading={taken.isLoading}
              disabled={isBarred}
              onClick={() => void take({ file, personId })}
            >
              Take in {newCount} {newCount === 1 ? "job" : "jobs"}
              {preview.boardTypes.new.length > 0 ? ` and ${preview.boardTypes.new.length} kinds of board` : ""}
            </Button>
          )}
        </div>
      )}
    </>
  );
}

function Told({ preview }: { readonly preview: BundlePreview }) {
  const { shop, exportedAt, coreVersion, hasCustomers, jobs, boardTypes, newPartCount, newPeople, unknownFields } =
    preview;
  return (
    <>
      <p>
        From {shop ?? "a shop without a name"}, {dayText(exportedAt)}, core {coreVersion},{" "}
        {hasCustomers ? "with customers" : "without customers"}.
      </p>
      {jobs.length > 0 && (
        <table className={`${text.table} ${text.ruled}`} aria-label="Jobs of the bundle">
          <TableHead names={["Its number", "Device", "Here", "Entries", "Photos"]} />
          <tbody>
            {jobs.map((one) => (
              <Job key={one.id} job={one} />
            ))}
          </tbody>
        </table>
      )}
      {boardTypes.new.length > 0 && <p>Kinds of board that are new here: {boardTypes.new.join(", ")}.</p>}
      {boardTypes.here.length > 0 && <p>Here already: {boardTypes.here.join(", ")}.</p>}
      {newPartCount > 0 && <p>{newPartCount} parts are new to the catalogue.</p>}
      {newPeople.length > 0 && <p>People that are new here: {newPeople.join(", ")}.</p>}
      {unknownFields.length > 0 && (
        <p className={text.wrong}>
          A newer Pale Cap wrote it. Not known here and left out: {unknownFields.join(", ")}.
        </p>
      )}
    </>
  );
}

function Job({ job }: { readonly job: BundleJob }) {
  const { id, number, device, state, numberHere, reason, rowCount, photoCount } = job;
  const padded = (one: number) => String(one).padStart(4, "0");
  return (
    <tr>
      <td>{padded(number)}</td>
      <td>{device}</td>
      <td>
        {bundleStateLabels[state]}
        {numberHere !== null && (
          <>
            {" "}
            as <Link to={`/jobs/${id}`}>{padded(numberHere)}</Link>
          </>
        )}
        {reason !== null && `: ${reason}`}
      </td>
      <td className={classes.figure}>{rowCount}</td>
      <td className={classes.figure}>{photoCount}</td>
    </tr>
  );
}
