import { Button, Loader } from "@mantine/core";
import { Link, useParams } from "react-router";
import { useHouseRulesQuery } from "../../job/houseRulesApi";
import { JobProvider } from "../../job/JobContext";
import { useJobQuery } from "../../job/jobApi";
import { useTellExport } from "../../job/useTellExport";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { Report } from "./Report";
import classes from "./report.module.css";

/** The report by itself, ready for paper. */
export function ReportPage() {
  const { jobId = "" } = useParams();
  const job = useJobQuery(jobId);
  const rules = useHouseRulesQuery();
  if (job.error || rules.error) {
    return (
      <main className={classes.page}>
        <ProblemNote problem={asProblem(job.error ?? rules.error)} />
        <Link to="/">To the bench</Link>
      </main>
    );
  }
  if (!job.data || !rules.data) return <Loader aria-label="Loading the report" />;
  return (
    <JobProvider detail={job.data} houseRules={rules.data}>
      <div className={classes.desk}>
        <nav className={classes.tools}>
          <Button component={Link} to={`/jobs/${jobId}/hand-over`}>
            Back to the job
          </Button>
          <PrintButton />
        </nav>
        <Report />
      </div>
    </JobProvider>
  );
}

function PrintButton() {
  const tellExport = useTellExport();
  return (
    <Button
      variant="filled"
      onClick={() => {
        tellExport("report");
        window.print();
      }}
    >
      Print
    </Button>
  );
}
