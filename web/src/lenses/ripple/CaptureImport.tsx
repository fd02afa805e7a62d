import { Button, Checkbox, Modal, NativeSelect, Progress, TextInput } from "@mantine/core";
import { type CaptureRig, captureLimits, type Net } from "@pale-cap/contract";
import {
  type CaptureMapping,
  type CaptureProblem,
  formatQuantity,
  isIntervalOdd,
  mostCaptureSamples,
} from "@pale-cap/core";
import { captureProblemWords } from "@pale-cap/wording";
import { proxy } from "comlink";
import { useRef, useState } from "react";
import { useJob } from "../../job/JobContext";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import { captureWorker } from "../../workers/captures";
import type { CapturePreview, ReadChannel } from "../../workers/captureWorker";
import { plainRig } from "./plainRig";
import classes from "./ripple.module.css";
import { useStoreCapture } from "./useStoreCapture";

const rigLabels: Readonly<Record<keyof CaptureRig, string>> = {
  hasLongGroundLead: "long ground lead",
  isAcCoupled: "AC coupled",
  isIsolationTransformer: "behind an isolation transformer",
  isBandwidthLimited: "20 MHz limit on",
};

/** What is odd about a capture that could be read: asked before it is stored. */
function captureDoubts(channels: readonly ReadChannel[], switchingHertz: number | null): string | null {
  const [first] = channels;
  if (!first) return null;
  const { intervalSeconds, sampleCount } = first.analysis;
  const odd = isIntervalOdd(intervalSeconds, sampleCount, switchingHertz)
    ? `${sampleCount} samples ${formatQuantity(intervalSeconds, "s").text} apart do not fit a rail that switches at ${switchingHertz === null ? "usual frequencies" : formatQuantity(switchingHertz, "Hz").text}: is the unit of time right?`
    : "";
  const clipped = channels.reduce((sum, one) => sum + one.clippedCount, 0);
  const beyond =
    clipped > 0
      ? `${clipped} samples lie beyond the scope's range: the ripple is at least what is shown, and its parts are not exact.`
      : "";
  return [odd, beyond].filter((one) => one !== "").join(" ") || null;
}

interface Opened {
  readonly file: File;
  readonly preview: CapturePreview;
}

/** Takes a capture from a file: recognised by its content or with a person's help, read with progress, stored when done. */
export function CaptureImport({ net, onStored }: { readonly net: Net; readonly onStored: (id: string) => void }) {
  const { houseRules } = useJob();
  const input = useRef<HTMLInputElement>(null);
  const [opened, setOpened] = useState<Opened>();
  const [mapping, setMapping] = useState<CaptureMapping>();
  const [rig, setRig] = useState<CaptureRig>(plainRig);
  const [loadAmps, setLoadAmps] = useState<number | null>(net.fullLoadAmps);
  const [progress, setProgress] = useState<number | null>(null);
  const [problem, setProblem] = useState<string>();
  /** What was read and is asked about before it is stored. */
  const [asked, setAsked] = useState<{ readonly channels: readonly ReadChannel[]; readonly words: string }>();
  const [store, { error }] = useStoreCapture(net);

  async function open(file: File | undefined): Promise<void> {
    setProblem(undefined);
    if (!file) return;
    setOpened(undefined);
    if (file.size > captureLimits.fileBytes) {
      const megabytes = Math.round(captureLimits.fileBytes / 1024 / 1024);
      setProblem(`The file is larger than ${megabytes} MB: cut the capture. Nothing was stored.`);
      return;
    }
    const preview = await captureWorker().preview(file);
    if (preview.rows.length === 0 || !preview.shape) {
      const code =
        preview.rows.filter((row) => row.some((cell) => cell.trim() !== "")).length < 4 ? "too_short" : "no_table";
      const none: CaptureProblem = { code, row: null, text: String(Math.max(preview.rows.length - 1, 0)) };
      setProblem(captureProblemWords(none));
      return;
    }
    setAsked(undefined);
    setOpened({ file, preview });
    setMapping(preview.shape.mapping);
  }

  async function read(): Promise<void> {
    if (!opened || !mapping) return;
    setProblem(undefined);
    if (asked) {
      await storeAll(opened.file.name, asked.channels);
      return;
    }
    setProgress(0);
    const worker = captureWorker();
    const result = await worker
      .read(opened.file, mapping, opened.preview.separator, houseRules["mains.hertz"], proxy(setProgress))
      .catch((reason: unknown) => String(reason));
    setProgress(null);
    if (result === null) return;
    if (typeof result === "string") {
      setProblem(`The file could not be read: ${result}. Nothing was stored.`);
      return;
    }
    if ("code" in result) {
      setProblem(captureProblemWords(result));
      return;
    }
    const channels = result as readonly ReadChannel[];
    const words = captureDoubts(channels, net.converter?.switchingHertz ?? null);
    if (words) setAsked({ channels, words });
    else await storeAll(opened.file.name, channels);
  }

  async function storeAll(fileName: string, channels: readonly ReadChannel[]): Promise<void> {
    for (const channel of channels) {
      const name = `${fileName} ${channel.name}`.trim().slice(0, 120);
      const id = await store(channel, { name, loadAmps, rig, instrument: null, isSimulated: false });
      if (id === null) return;
      onStored(id);
    }
    setAsked(undefined);
    setOpened(undefined);
  }

  function change(next: CaptureMapping): void {
    setAsked(undefined);
    setMapping(next);
  }

  // What was said about the file stays as it is: the sentence stands beside it.
  const refusal = (
    <>
      {problem && (
        <p role="alert" className={classes.story}>
          {problem}
        </p>
      )}
      <ProblemNote problem={asProblem(error)} />
    </>
  );
  return (
    <>
      <Button onClick={() => input.current?.click()}>Capture from a file</Button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label="Capture file"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        onChange={(event) => {
          void open(event.currentTarget.files?.[0]);
          event.currentTarget.value = "";
        }}
      />
      {!opened && refusal}
      <Modal
        opened={opened !== undefined}
        onClose={() => {
          void captureWorker().cancel();
          setOpened(undefined);
        }}
        title={opened ? `Capture of ${net.name}: ${opened.file.name}` : ""}
        size="xl"
      >
        {opened && mapping && (
          <>
            {!opened.preview.shape?.isCertain && (
              <p className={classes.story}>
                Not everything could be told from the content: say what is what. Up to {mostCaptureSamples / 1e6}{" "}
                million samples.
              </p>
            )}
            <Preview preview={opened.preview} mapping={mapping} />
            <MappingForm preview={opened.preview} mapping={mapping} onChange={change} />
            <div className={classes.form}>
              <QuantityInput
                label="Load during it"
                unit="A"
                limits={[0.001, 500]}
                value={loadAmps}
                onChange={setLoadAmps}
              />
              <div className={classes.rig}>
                {(Object.keys(rigLabels) as (keyof CaptureRig)[]).map((key) => (
                  <Checkbox
                    key={key}
                    label={rigLabels[key]}
                    checked={rig[key]}
                    onChange={(event) => setRig({ ...rig, [key]: event.currentTarget.checked })}
                  />
                ))}
              </div>
            </div>
            {progress !== null && <Progress value={progress * 100} mt="md" aria-label="Reading" />}
            {asked && (
              <p role="status" className={classes.story}>
                {asked.words}
              </p>
            )}
            {refusal}
            <div className={classes.acts}>
              <Button variant="filled" loading={progress !== null} onClick={() => void read()}>
                {asked ? "Take it all the same" : "Take it"}
              </Button>
              <Button
                onClick={() => {
                  void captureWorker().cancel();
                  setOpened(undefined);
                }}
              >
                {progress === null ? "Leave it" : "Stop reading"}
              </Button>
            </div>
          </>
        )}
      </Modal>
    </>
  );
}

function Preview({ preview, mapping }: { readonly preview: CapturePreview; readonly mapping: CaptureMapping }) {
  const used = new Set([mapping.timeColumn, ...mapping.channels.map((one) => one.column)]);
  return (
    <div className={classes.preview}>
      <table>
        <tbody>
          {preview.rows.slice(0, mapping.headerRows + 6).map((row, n) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: lines of a file have no other name
            <tr key={n} data-head={n < mapping.headerRows || undefined}>
              {row.map((cell, column) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: nor have its cells
                <td key={column} data-use={used.has(column) || undefined}>
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const timeScales = [
  ["s", 1],
  ["ms", 1e-3],
  ["µs", 1e-6],
  ["ns", 1e-9],
] as const;
const voltScales = [
  ["V", 1],
  ["mV", 1e-3],
] as const;

function MappingForm(props: {
  readonly preview: CapturePreview;
  readonly mapping: CaptureMapping;
  readonly onChange: (mapping: CaptureMapping) => void;
}) {
  const { preview, mapping, onChange } = props;
  const count = preview.rows[mapping.headerRows]?.length ?? 1;
  const columns = Array.from({ length: count }, (_, n) => ({ value: String(n), label: `column ${n + 1}` }));
  const [channel] = mapping.channels;
  const setChannel = (more: Partial<CaptureMapping["channels"][number]>) =>
    onChange({
      ...mapping,
      channels: mapping.channels.map((one, n) =>
        n === 0 ? { ...one, ...more } : { ...one, scaleVolts: more.scaleVolts ?? one.scaleVolts },
      ),
    });
  return (
    <div className={classes.form}>
      <NativeSelect
        label="Time"
        value={mapping.timeColumn === null ? "" : String(mapping.timeColumn)}
        data={[{ value: "", label: "no column: a fixed interval" }, ...columns]}
        onChange={(event) => {
          const { value } = event.currentTarget;
          onChange({ ...mapping, timeColumn: value === "" ? null : Number(value) });
        }}
      />
      {mapping.timeColumn === null ? (
        <QuantityInput
          label="Interval"
          unit="s"
          defaultPrefix="u"
          limits={[1e-12, 100]}
          value={mapping.intervalSeconds}
          onChange={(intervalSeconds) => onChange({ ...mapping, intervalSeconds })}
        />
      ) : (
        <NativeSelect
          label="Time is in"
          value={String(mapping.timeScaleSeconds)}
          data={timeScales.map(([label, value]) => ({ value: String(value), label }))}
          onChange={(event) => onChange({ ...mapping, timeScaleSeconds: Number(event.currentTarget.value) })}
        />
      )}
      <NativeSelect
        label="Volts"
        value={String(channel?.column ?? 0)}
        data={columns}
        onChange={(event) => setChannel({ column: Number(event.currentTarget.value) })}
      />
      <NativeSelect
        label="Volts are in"
        value={String(channel?.scaleVolts ?? 1)}
        data={voltScales.map(([label, value]) => ({ value: String(value), label }))}
        onChange={(event) => setChannel({ scaleVolts: Number(event.currentTarget.value) })}
      />
      <TextInput
        label="First row of numbers"
        value={String(mapping.headerRows + 1)}
        onChange={(event) => {
          const row = Number(event.currentTarget.value);
          if (Number.isInteger(row) && row >= 1) onChange({ ...mapping, headerRows: row - 1 });
        }}
      />
    </div>
  );
}
