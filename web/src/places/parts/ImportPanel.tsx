import { Button, FileInput, NativeSelect, Progress } from "@mantine/core";
import type { ImportOutcome } from "@pale-cap/contract";
import { type CatalogueColumn, catalogueColumns, type MappedHeader, mapHeader, neededColumns } from "@pale-cap/core";
import { columnLabels, importChangeWords, listWords, minorPerMajor, moneyText, rowFaultWords } from "@pale-cap/wording";
import { proxy, type Remote, wrap } from "comlink";
import { useEffect, useRef, useState } from "react";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import type { FileLook, FileRefusal } from "../../workers/catalogueFile";
import type { CatalogueFileWorker } from "../../workers/catalogueFileWorker";
import classes from "./parts.module.css";
import { useImportCatalogueMutation } from "./partsApi";

const refusals: Readonly<Record<FileRefusal, string>> = {
  empty: "This file has no rows below its heading. Nothing was taken in.",
  no_columns: "This file has no columns: a comma, a semicolon or a tab stands between them. Nothing was taken in.",
  too_many_rows: "This file has more than 200,000 rows. Split it; nothing was taken in.",
};
/** What a bare number below a heading that nobody knows can be. */
const factors: readonly (readonly [string, number])[] = [
  ["as it is (F, V, Ω, A, h, Hz)", 1],
  ["milli (mΩ, mA, mm)", 1e-3],
  ["micro (µF)", 1e-6],
  ["nano (nF)", 1e-9],
  ["kilo", 1e3],
];

type Read = NonNullable<Awaited<ReturnType<CatalogueFileWorker["read"]>>>;

/** A file is looked at, its columns are named, its rows are read; nothing is stored before "take these in". */
export function ImportPanel({ currency, onLeave }: { readonly currency: string; readonly onLeave: () => void }) {
  const worker = useRef<Remote<CatalogueFileWorker>>(undefined);
  const [file, setFile] = useState<File | null>(null);
  const [look, setLook] = useState<FileLook>();
  const [refusal, setRefusal] = useState<FileRefusal>();
  const [columns, setColumns] = useState<readonly (MappedHeader | null)[]>([]);
  const [decimalMark, setDecimalMark] = useState<"." | ",">(".");
  const [progress, setProgress] = useState<number | null>(null);
  const [read, setRead] = useState<Read>();
  const [outcome, setOutcome] = useState<ImportOutcome>();
  const [importId, setImportId] = useState(newId);
  const personId = useAppSelector((state) => state.workplace.personId);
  const [store, { error, isLoading }] = useImportCatalogueMutation();
  useEffect(() => {
    const own = new Worker(new URL("../../workers/catalogueFileWorker.ts", import.meta.url), { type: "module" });
    worker.current = wrap<CatalogueFileWorker>(own);
    return () => own.terminate();
  }, []);

  async function open(chosen: File | null) {
    setFile(chosen);
    setRead(undefined);
    setOutcome(undefined);
    setLook(undefined);
    setRefusal(undefined);
    setImportId(newId());
    if (!chosen || !worker.current) return;
    const found = await worker.current.look(chosen);
    if (typeof found === "string") return setRefusal(found);
    setLook(found);
    setColumns(withoutDoubles(found.headers.map(mapHeader)));
    setDecimalMark(found.decimalMark);
  }

  async function readRows() {
    if (!worker.current) return;
    setProgress(0);
    const mapping = { columns, decimalMark, minorPerUnit: minorPerMajor(currency) };
    const found = await worker.current.read(mapping, proxy(setProgress));
    setProgress(null);
    if (found) setRead(found);
  }

  async function takeIn() {
    if (!worker.current || !read || !file) return;
    const about = { id: importId, source: file.name.slice(0, 120) || "file", rowCount: read.count, personId };
    const answer = await store({ about, rows: await worker.current.packed() });
    if (answer.data) setOutcome(answer.data);
  }

  const named = new Set(columns.flatMap((one) => (one ? [one.column] : [])));
  const missing = neededColumns.filter((one) => !named.has(one));
  const hasEsr = named.has("esrOhms") || named.has("dissipationFactorRatio");
  const isMapped = missing.length === 0 && hasEsr;
  const change = (n: number, next: MappedHeader | null) => {
    setRead(undefined);
    setColumns(columns.map((one, index) => (index === n ? next : one)));
  };
  return (
    <div className={classes.list}>
      <Part title="Take in a file" aside={<Button onClick={onLeave}>Leave it</Button>}>
        <FileInput
          label="CSV with one part a row, its headings in the first"
          accept=".csv,.txt,text/csv,text/plain"
          placeholder="pick a file"
          value={file}
          onChange={(chosen) => void open(chosen)}
        />
        {refusal && (
          <p role="alert" className={text.wrong}>
            {refusals[refusal]}
          </p>
        )}
        {look && !outcome && (
          <>
            <p className={text.softLine}>
              {look.rowCount} rows, {look.encoding}, columns parted by “
              {look.delimiter === "\t" ? "tab" : look.delimiter}”. What each column is:
            </p>
            <div className={classes.mapping}>
              {look.headers.map((header, n) => (
                <Column
                  // biome-ignore lint/suspicious/noArrayIndexKey: columns of a file have no other name
                  key={n}
                  header={header}
                  samples={look.samples.map((cells) => cells[n] ?? "")}
                  mapped={columns[n] ?? null}
                  onChange={(next) => change(n, next)}
                />
              ))}
              <NativeSelect
                label="Before decimals stands"
                value={decimalMark}
                data={[
                  { value: ".", label: "a point: 4.7" },
                  { value: ",", label: "a comma: 4,7" },
                ]}
                onChange={(event) => {
                  setRead(undefined);
                  setDecimalMark(event.currentTarget.value as typeof decimalMark);
                }}
              />
            </div>
            {!isMapped && (
              <p className={text.wrong}>
                Missing:{" "}
                {listWords([...missing.map((one) => columnLabels[one]), ...(hasEsr ? [] : ["ESR or tan delta"])])}.
              </p>
            )}
            <div className={classes.row}>
              <Button disabled={!isMapped || progress !== null} onClick={() => void readRows()}>
                Read the rows
              </Button>
              {progress !== null && (
                <>
                  <Progress value={(100 * progress) / look.rowCount} w={200} aria-label="Rows read" />
                  <Button variant="default" onClick={() => void worker.current?.stop()}>
                    Stop
                  </Button>
                </>
              )}
            </div>
          </>
        )}
        {read && !outcome && (
          <>
            <p className={text.softLine} role="status">
              {read.count} {read.count === 1 ? "row" : "rows"} can be taken in, {read.badCount} cannot. The first as
              they were understood:
            </p>
            <ul className={classes.log}>
              {read.first.map((part) => (
                <li key={part.orderCode}>
                  {part.maker} {part.series} {part.orderCode}:{" "}
                  <Quantity value={part.capacitanceFarads} unit="F" isMarking />{" "}
                  <Quantity value={part.ratedVolts} unit="V" /> {part.diameterMetres * 1e3}×{part.heightMetres * 1e3},{" "}
                  ESR <Quantity value={part.esrOhms} unit="Ω" />, ripple{" "}
                  <Quantity value={part.rippleAmpsRms} unit="A" />, {part.ratedLifeHours} h,{" "}
                  {moneyText(part.priceMinor, currency)}
                  {part.printed && `, printed at ${part.printed.frequencyHertz} Hz and converted`}
                </li>
              ))}
            </ul>
            {read.bad.length > 0 && (
              <ul className={classes.bad} aria-label="Rows that cannot be taken">
                {read.bad.map(({ row, faults }) => (
                  <li key={row}>
                    Row {row}: {faults.map(rowFaultWords).join("; ")}
                  </li>
                ))}
                {read.badCount > read.bad.length && <li>and {read.badCount - read.bad.length} more rows.</li>}
              </ul>
            )}
            <Button variant="filled" disabled={read.count === 0} loading={isLoading} onClick={() => void takeIn()}>
              Take these {read.count} in
            </Button>
          </>
        )}
        {outcome && <Outcome outcome={outcome} currency={currency} />}
        <ProblemNote problem={asProblem(error)} />
      </Part>
    </div>
  );
}

/** A column that is named twice is the first one's; a person may say otherwise. */
function withoutDoubles(columns: readonly (MappedHeader | null)[]): readonly (MappedHeader | null)[] {
  return columns.map((one, n) =>
    one && columns.findIndex((other) => other?.column === one.column) === n ? one : null,
  );
}

function Column(props: {
  readonly header: string;
  readonly samples: readonly string[];
  readonly mapped: MappedHeader | null;
  readonly onChange: (next: MappedHeader | null) => void;
}) {
  const { header, samples, mapped, onChange } = props;
  const isText = mapped && ["maker", "series", "orderCode", "capacitorClass", "price"].includes(mapped.column);
  return (
    <div>
      <NativeSelect
        label={header || "without a name"}
        value={mapped?.column ?? ""}
        data={[
          { value: "", label: "left out" },
          ...catalogueColumns.map((value) => ({ value, label: columnLabels[value as CatalogueColumn] })),
        ]}
        onChange={(event) => {
          const column = event.currentTarget.value as CatalogueColumn | "";
          const guess = column === "" ? null : mapHeader(columnLabels[column]);
          onChange(column === "" ? null : { column, factor: guess?.factor ?? 1, hertz: mapped?.hertz ?? null });
        }}
      />
      {mapped && !isText && (
        <NativeSelect
          size="xs"
          aria-label={`Unit of ${header}`}
          value={String(mapped.factor)}
          data={factors.map(([label, factor]) => ({ value: String(factor), label }))}
          onChange={(event) => onChange({ ...mapped, factor: Number(event.currentTarget.value) })}
        />
      )}
      <div className={classes.sample}>{samples.join(" · ")}</div>
    </div>
  );
}

function Outcome({ outcome, currency }: { readonly outcome: ImportOutcome; readonly currency: string }) {
  const { addedCount, changedCount, sameCount, changes } = outcome;
  return (
    <div role="status">
      <p>
        <b>Taken in.</b> {addedCount} new, {changedCount} changed, {sameCount} as they were.
      </p>
      {changes.length > 0 && (
        <ul className={classes.log}>
          {changes.map((one) => (
            <li key={`${one.maker} ${one.series} ${one.orderCode}`}>
              {one.maker} {one.series} {one.orderCode}:{" "}
              {one.fields.map((field) => importChangeWords(field, currency)).join(", ") || "printed ratings"}
            </li>
          ))}
          {changedCount > changes.length && <li>and {changedCount - changes.length} more.</li>}
        </ul>
      )}
    </div>
  );
}
