import { Button } from "@mantine/core";
import { currentPart, foundPart, railNetlist } from "@pale-cap/core";
import { deviceName, quantityFacts } from "@pale-cap/wording";
import Papa from "papaparse";
import { useState } from "react";
import { fetchSamples } from "../../job/fetchSamples";
import { useJob } from "../../job/JobContext";
import { download } from "../../ui/download";
import { Part } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import classes from "./handOver.module.css";

const csv = "text/csv;charset=utf-8";
const written = (fields: readonly string[], data: readonly (readonly unknown[])[]) =>
  Papa.unparse({ fields: [...fields], data: data.map((row) => [...row]) }, { escapeFormulae: true });

/** What was measured on the unit as open files: tables for a spreadsheet, the rails for a circuit simulator. */
export function FilesPart() {
  const { whole } = useJob();
  const { detail, facts } = whole;
  const [failure, setFailure] = useState("");
  const name = String(detail.job.number).padStart(4, "0");
  const give = (what: string, content: string, type = csv) =>
    download(`${what}-${name}.${type === csv ? "csv" : "net"}`, content, type);
  async function giveCapture(id: string, captureName: string, intervalSeconds: number) {
    try {
      const volts = await fetchSamples(id);
      const rows = Array.from(volts, (one, n) => [(n * intervalSeconds).toExponential(6), one.toPrecision(6)]);
      give(`waveform-${captureName.replace(/\W+/g, "-")}`, written(["time s", "volts V"], rows));
      setFailure("");
    } catch (error) {
      setFailure(error instanceof Error ? error.message : "The samples could not be fetched.");
    }
  }
  return (
    <Part title="Files">
      <div className={classes.files}>
        <Button size="xs" disabled={detail.readings.length === 0} onClick={() => give("readings", readingsCsv(detail))}>
          Readings
        </Button>
        <Button size="xs" disabled={detail.positions.length === 0} onClick={() => give("parts", partsCsv(detail))}>
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
      {failure && <p className={text.wrong}>{failure}</p>}
      <p className={text.soft}>Load runs give their own log, on the page of the run.</p>
    </Part>
  );
}

type Detail = ReturnType<typeof useJob>["detail"];

function readingsCsv(detail: Detail): string {
  const targetOf = (kind: string, id: string) =>
    (kind === "part"
      ? detail.positions.find((one) => one.id === id)?.designator
      : detail.nets.find((one) => one.id === id)?.name) ?? "unit";
  const fields = [
    ...["measured at", "target", "terminals", "quantity", "value", "unit", "word", "circuit", "frequency Hz"],
    ...["temperature C", "powered", "load A", "instrument", "simulated", "withdrawn", "corrects", "id"],
  ];
  return written(
    fields,
    detail.readings.map((one) => [
      ...[one.measuredAt, targetOf(one.targetKind, one.targetId), one.terminals, one.quantity, one.value],
      ...[quantityFacts[one.quantity].unit, one.coarseCode, one.circuitState, one.frequencyHertz],
      ...[one.temperatureCelsius, one.isPowered ? 1 : 0, one.loadAmps, one.instrument, one.isSimulated ? 1 : 0],
      ...[one.isWithdrawn ? 1 : 0, one.supersedesId, one.id],
    ]),
  );
}

function partsCsv(detail: Detail): string {
  const netOf = (id: string | null) => detail.nets.find((one) => one.id === id)?.name ?? null;
  const millimetres = (metres: number | null | undefined) =>
    metres == null ? null : Number((metres * 1e3).toFixed(2));
  const fields = [
    ...["designator", "kind", "net", "x mm", "y mm", "which", "capacitance F", "volts V", "class C", "maker", "series"],
    ...["diameter mm", "height mm", "ESR by sheet ohm"],
  ];
  const rows = detail.positions.flatMap((place) => {
    const found = foundPart(detail.fittedParts, place.id);
    const current = currentPart(detail.fittedParts, place.id);
    const parts = found && current && found.id !== current.id ? [found, current] : [current ?? found];
    return parts.map((part, n) => [
      ...[place.designator, place.kind, netOf(place.netId), millimetres(place.xMetres), millimetres(place.yMetres)],
      ...[parts.length > 1 && n === 0 ? "found" : part && !current ? "found, out now" : "in"],
      ...[part?.capacitanceFarads, part?.ratedVolts, part?.temperatureClassCelsius, part?.maker, part?.series],
      ...[millimetres(part?.diameterMetres), millimetres(part?.heightMetres), part?.datasheetEsrOhms],
    ]);
  });
  return written(fields, rows);
}
