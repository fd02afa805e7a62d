import { Button } from "@mantine/core";
import { Link, useParams } from "react-router";
import { JobPage } from "../../job/JobPage";
import { useTellExport } from "../../job/useTellExport";
import { Report } from "./Report";
import classes from "./report.module.css";

/** The report by itself, ready for paper. */
export function ReportPage() {
  const { jobId = "" } = useParams();
  return (
    <JobPage name="report">
      <div className={classes.desk}>
        <nav className={classes.tools}>
          <Button component={Link} to={`/jobs/${jobId}/hand-over`}>
            Back to the job
          </Button>
          <PrintButton />
        </nav>
        <Report />
      </div>
    </JobPage>
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
