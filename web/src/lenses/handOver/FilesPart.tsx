import { Button } from "@mantine/core";
import { path, routes } from "@pale-cap/contract";
import { railNetlist } from "@pale-cap/core";
import { deviceName, type FileTable, partsTable, readingsTable, waveformTable } from "@pale-cap/wording";
import Papa from "papaparse";
import { useState } from "react";
import { BundleLink } from "../../job/BundleLink";
import { fetchSamples } from "../../job/fetchSamples";
import { useJob } from "../../job/JobContext";
import { useTellExport } from "../../job/useTellExport";
import { download } from "../../ui/download";
import { Part } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import classes from "./handOver.module.css";

const csv = "text/csv;charset=utf-8";
const written = ({ fields, rows }: FileTable) =>
  Papa.unparse({ fields: [...fields], data: rows.map((row) => [...row]) }, { escapeFormulae: true });

/** What was measured on the unit as open files: tables for a spreadsheet, the rails for a circuit simulator. */
export function FilesPart() {
  const { whole } = useJob();
  const { detail, facts } = whole;
  const [failure, setFailure] = useState("");
  const tellExport = useTellExport();
  const name = String(detail.job.number).padStart(4, "0");
  const give = (what: string, content: string, type = csv) =>
    download(`${what}-${name}.${type === csv ? "csv" : "net"}`, content, type);
  async function giveCapture(id: string, captureName: string, intervalSeconds: number) {
    try {
      const volts = await fetchSamples(id);
      give(`waveform-${captureName.replace(/\W+/g, "-")}`, written(waveformTable(volts, intervalSeconds)));
      setFailure("");
    } catch (error) {
      setFailure(error instanceof Error ? error.message : "The samples could not be fetched.");
    }
  }
  return (
    <Part title="Files">
      <div className={classes.files}>
        <Button
          size="xs"
          disabled={detail.readings.length === 0}
          onClick={() => give("readings", written(readingsTable(detail)))}
        >
          Readings
        </Button>
        <Button
          size="xs"
          disabled={detail.positions.length === 0}
          onClick={() => give("parts", written(partsTable(detail)))}
        >
          Parts and places
        </Button>
        <Button
          size="xs"
          disabled={detail.nets.length === 0}
          onClick={() =>
            give("rails", railNetlist(facts, `${name} ${deviceName(detail.job)}`), "text/plain;charset=utf-8")
          }
        >
          Rails for a simulator
        </Button>
        {detail.captures.map((one) => (
          <Button
            key={one.id}
            size="xs"
            onClick={() => void giveCapture(one.id, one.name, one.analysis.intervalSeconds)}
          >
            {one.name}
          </Button>
        ))}
      </div>
      <div className={classes.files}>
        <BundleLink
          address={path(routes.jobBundle, { jobId: detail.job.id })}
          name="The whole job as a bundle"
          onGiven={() => tellExport("bundle")}
        />
      </div>
      {failure && <p className={text.wrong}>{failure}</p>}
      <p className={text.soft}>Load runs give their own log, on the page of the run.</p>
    </Part>
  );
}
