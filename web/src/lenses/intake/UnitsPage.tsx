import { Button, FileInput, Textarea, TextInput } from "@mantine/core";
import { path, routes } from "@pale-cap/contract";
import type { FamilyFinding } from "@pale-cap/core";
import { deviceName, familyFindingWords, standingWords } from "@pale-cap/wording";
import Papa from "papaparse";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { newId } from "../../api/newId";
import { BundleLink } from "../../job/BundleLink";
import { useFamilyQuery, useMakeUnitsMutation } from "../../job/familyApi";
import { useJob } from "../../job/JobContext";
import { useTarget } from "../../job/useTarget";
import { useTellExport } from "../../job/useTellExport";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import classes from "./units.module.css";

/** Identical units: what was found on the others means something for this one; and more of them can be made. */
export function UnitsPage() {
  const { detail } = useJob();
  const { data: family, error } = useFamilyQuery(detail.job.id);
  const tellExport = useTellExport();
  if (!family) return <ProblemNote problem={asProblem(error)} />;
  const others = family.units.filter((unit) => unit.id !== detail.job.id);
  return (
    <>
      {others.length > 0 && (
        <>
          <Part title="What the others mean for this one">
            {family.findings.length === 0 && (
              <p className={text.softLine}>Nothing was condemned on the other units yet.</p>
            )}
            <ul className={classes.findings}>
              {family.findings.map((finding) => (
                <FindingLine key={finding.code + finding.subject} finding={finding} />
              ))}
            </ul>
          </Part>
          <Part
            title={family.name ?? "Units of this kind"}
            aside={<Link to={`/family/${detail.job.id}`}>all side by side</Link>}
          >
            <ul className={classes.units}>
              {family.units.map((unit) => (
                <li key={unit.id} data-own={unit.id === detail.job.id || undefined}>
                  <Link to={`/jobs/${unit.id}/intake?page=units`}>{String(unit.number).padStart(4, "0")}</Link>{" "}
                  {unit.serial ?? <span className={text.softLine}>no serial</span>}
                  {unit.handedOverAt && <span className={text.softLine}> handed over</span>}
                </li>
              ))}
            </ul>
            <BundleLink
              address={path(routes.familyBundle, { jobId: detail.job.id })}
              name="All of them as a bundle"
              onGiven={() => tellExport("bundle")}
            />
          </Part>
        </>
      )}
      <MoreUnits isFirst={others.length === 0} />
    </>
  );
}

function FindingLine({ finding }: { readonly finding: FamilyFinding }) {
  const { detail } = useJob();
  const [, select] = useTarget();
  const navigate = useNavigate();
  const { ownPositionId, ownNetId } = finding;
  const target = ownPositionId
    ? ({ kind: "part", id: ownPositionId } as const)
    : ownNetId
      ? ({ kind: "rail", id: ownNetId } as const)
      : null;
  return (
    <li data-own={finding.own}>
      <span>{familyFindingWords(finding)}</span>
      <span className={classes.standing}>{standingWords(finding.own)}</span>
      {target && finding.own === "not_checked" && (
        <Button
          size="compact-sm"
          onClick={() => {
            select(target);
            navigate(`/jobs/${detail.job.id}/measure`);
          }}
        >
          Measure it
        </Button>
      )}
    </li>
  );
}

/** One serial a line; an empty line is a unit whose serial nobody has read yet. */
function MoreUnits({ isFirst }: { readonly isFirst: boolean }) {
  const { detail } = useJob();
  const [make, { error, isLoading }] = useMakeUnitsMutation();
  const [fileProblem, setFileProblem] = useState<string>();
  const [serials, setSerials, dropSerials] = useDraft(`${detail.job.id} serials`, "");
  const [name, setName] = useDraft(`${detail.job.id} lot`, `Several ${deviceName(detail.job)}`);
  const lines = serials.replace(/\n$/, "").split("\n");
  const count = lines.length;
  const isTooMany = count > 40;

  async function submit() {
    const units = lines.map((line) => ({ id: newId(), serial: line.trim() || null }));
    const body = { id: newId(), familyName: name.trim() || deviceName(detail.job), units };
    const answer = await make({ jobId: detail.job.id, body });
    if (!answer.error) dropSerials(serials);
  }

  async function takeFile(file: File | null) {
    if (!file) return;
    const { data } = Papa.parse<readonly string[]>(await file.text(), { skipEmptyLines: true });
    const first = data.map((row) => (row[0] ?? "").trim());
    // A heading is no serial.
    const list = first.filter(
      (one, n) => one !== "" && !(n === 0 && /serial|unit|no\.?$/i.test(one) && !/\d/.test(one)),
    );
    const isGood = list.length > 0 && list.length <= 40 && list.every((one) => one.length <= 80);
    setFileProblem(isGood ? undefined : `Nothing was taken: ${list.length} serials, and 1 to 40 can be made at once.`);
    if (isGood) setSerials(list.join("\n"));
  }

  return (
    <Part
      title={isFirst ? "Several of the same came in?" : "More of the same"}
      aside={<span className={text.softLine}>device, promise and board are copied; readings are not</span>}
    >
      <form
        className={classes.more}
        onSubmit={(event) => {
          event.preventDefault();
          if (!isTooMany) void submit();
        }}
      >
        {isFirst && (
          <TextInput
            label="Name of the lot"
            maxLength={80}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
        )}
        <Textarea
          label="Serials of the other units, one a line"
          description="An empty line makes a unit without a serial."
          autosize
          minRows={2}
          maxRows={8}
          value={serials}
          error={isTooMany ? "At most 40 units at once." : undefined}
          onChange={(event) => setSerials(event.currentTarget.value)}
        />
        <FileInput
          label="Or a list of serials as a file, the first column"
          accept=".csv,.txt"
          clearable
          value={null}
          onChange={(file) => void takeFile(file)}
          error={fileProblem}
        />
        <Button type="submit" variant="filled" loading={isLoading} disabled={isTooMany}>
          Make {count} more unit{count === 1 ? "" : "s"}
        </Button>
      </form>
      <ProblemNote problem={asProblem(error)} />
    </Part>
  );
}
