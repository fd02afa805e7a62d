import { Button, Loader, SegmentedControl, Select } from "@mantine/core";
import type { ReportAudience, ReportVersion } from "@pale-cap/contract";
import { momentText } from "@pale-cap/wording";
import { Link, useSearchParams } from "react-router";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { JobPage } from "../../job/JobPage";
import { useTellExport } from "../../job/useTellExport";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { reportFileUrl, useReportQuery, useReportVersionsQuery } from "./handOverApi";
import { ReportSheet } from "./ReportSheet";
import classes from "./report.module.css";

/** The reports by themselves, ready for paper: the customer's and the record, as they stand and as they were handed over. */
export function ReportPage() {
  return (
    <JobPage name="report">
      <Reports />
    </JobPage>
  );
}

const now = "now";

function Reports() {
  const { detail } = useJob();
  const { job } = detail;
  const [search, setSearch] = useSearchParams();
  const audience: ReportAudience = search.get("for") === "record" ? "record" : "customer";
  const { data: versions = [] } = useReportVersionsQuery(job.id);
  const waiting = useAppSelector((state) => state.outbox.facts.filter((one) => one.jobId === job.id).length);
  // What was handed over is shown first; a job that is open stands as it stands.
  const chosen = search.get("version") ?? (job.handedOverAt ? (versions[0]?.id ?? now) : now);
  const reportId = chosen === now ? null : chosen;
  const asked = { jobId: job.id, audience, reportId, waiting };
  const { data: report, error, isFetching } = useReportQuery(asked, { refetchOnMountOrArgChange: true });
  const tellExport = useTellExport();
  const set = (name: string, value: string) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        next.set(name, value);
        return next;
      },
      { replace: true },
    );
  return (
    <div className={classes.desk}>
      <nav className={classes.tools}>
        <Button component={Link} to={`/jobs/${job.id}/hand-over`}>
          Back to the job
        </Button>
        <SegmentedControl
          aria-label="Whose report"
          data={[
            { value: "customer", label: "For the customer" },
            { value: "record", label: "For the record" },
          ]}
          value={audience}
          onChange={(value) => set("for", value)}
        />
        <Select
          aria-label="Which version"
          data={[
            { value: now, label: "As it stands now" },
            ...versions.map((one) => ({ value: one.id, label: `Version ${one.number}, ${momentText(one.madeAt)}` })),
          ]}
          value={chosen}
          allowDeselect={false}
          onChange={(value) => value && set("version", value)}
        />
        <span className={classes.ways}>
          <Button
            onClick={() => {
              tellExport("report");
              window.print();
            }}
          >
            Print
          </Button>
          <Button
            component="a"
            variant="filled"
            href={reportFileUrl(asked)}
            target="_blank"
            rel="noreferrer"
            onClick={() => tellExport("report")}
          >
            As PDF
          </Button>
        </span>
      </nav>
      <div className={classes.notes}>
        {waiting > 0 && (
          <p className={text.wrong}>
            {waiting} {waiting === 1 ? "entry waits" : "entries wait"} to be stored and {waiting === 1 ? "is" : "are"}{" "}
            not in it yet.
          </p>
        )}
        <Difference version={versions.find((one) => one.id === reportId)} audience={audience} />
        <ProblemNote problem={asProblem(error)} />
      </div>
      {report && !isFetching ? <ReportSheet report={report} /> : !error && <Loader aria-label="Drawing the report" />}
    </div>
  );
}

/** What this version says that the one before did not. */
function Difference(props: { readonly version: ReportVersion | undefined; readonly audience: ReportAudience }) {
  const { version, audience } = props;
  if (!version?.difference) return null;
  const { added, gone } = version.difference[audience];
  return (
    <details className={classes.difference} open>
      <summary>
        Differs from version {version.number - 1}: {added.length} said anew, {gone.length} no longer said
      </summary>
      <ul>
        {added.map((one) => (
          <li key={`+${one}`}>
            <b>now:</b> {one}
          </li>
        ))}
        {gone.map((one) => (
          <li key={`-${one}`}>
            <b>no longer:</b> {one}
          </li>
        ))}
      </ul>
    </details>
  );
}
