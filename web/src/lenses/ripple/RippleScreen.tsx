import { Button, SegmentedControl, Slider } from "@mantine/core";
import {
  converterOf,
  fedRail,
  filterStates,
  leftEmptyIds,
  type PredictionQuestion,
  rippleAttribution,
  rippleLimitVolts,
  usualCapacitorCelsius,
  withCapturedFrequency,
} from "@pale-cap/core";
import { assumptionWords, filterStateLabels, impossibleWords } from "@pale-cap/wording";
import { useMemo, useRef, useState } from "react";
import { useParams } from "react-router";
import { useJob } from "../../job/JobContext";
import { LensLayout } from "../../job/panels/LensLayout";
import { useTellExport } from "../../job/useTellExport";
import { download } from "../../ui/download";
import { Pane, Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import { rippleWorker, useRipplePrediction } from "../../workers/useRipplePrediction";
import { BulkScreen } from "./BulkScreen";
import { CaptureCard } from "./CaptureCard";
import { ConverterForm } from "./ConverterForm";
import { chartPng, waveformCsv } from "./exports";
import { RailChoice } from "./RailChoice";
import { RegulatedNote } from "./RegulatedNote";
import { RippleChart } from "./RippleChart";
import { EdgeNote, LimitNote, MeterNote } from "./RippleNotes";
import { RippleTable } from "./RippleTable";
import classes from "./ripple.module.css";
import { captureColumns, rippleColumns } from "./rippleSeries";
import { ShareChart } from "./ShareChart";
import { useChosenParts } from "./useChosenParts";
import { useNewestAnalysis } from "./useNewestAnalysis";
import { useSamples } from "./useSamples";

type View = "switching" | "window" | "table";

/** The ripple lens of one rail, or of the bulk. */
export function RippleScreen() {
  const { netId = "" } = useParams();
  const net = useJob().detail.nets.find((one) => one.id === netId);
  return net && (net.section === "bulk" || net.section === "pfc") ? (
    <BulkScreen key={net.id} net={net} />
  ) : (
    <RailScreen key={netId} netId={netId} />
  );
}

/** The ripple lens of one rail: what the capacitors bring about as new, as read and as replaced, beside what was captured. */
function RailScreen({ netId }: { readonly netId: string }) {
  const { detail, facts, rules } = useJob();
  const net = detail.nets.find((one) => one.id === netId);
  // A rail behind a choke is predicted with the one before it.
  const first = net && fedRail(detail.nets, net);
  const full = first?.fullLoadAmps ?? null;
  const [loadAmps, setLoadAmps] = useState<number | null>(null);
  const [celsius, setCelsius] = useState(usualCapacitorCelsius);
  const [view, setView] = useState<View>("switching");
  const [shownId, setShownId] = useState<string>();
  const chosen = useChosenParts();
  const captures = useMemo(
    () => detail.captures.filter((one) => one.netId === netId || one.netId === first?.id),
    [detail.captures, netId, first],
  );
  const shown = captures.find((one) => one.id === shownId) ?? captures.at(-1);
  const samples = useSamples(shown?.id);
  useNewestAnalysis(shown, samples);
  const known = useMemo(() => (first ? converterOf(first, { device: facts.device }) : null), [first, facts.device]);
  const load = loadAmps ?? shown?.loadAmps ?? full;
  const question = useMemo((): PredictionQuestion | null => {
    if (!first || !known) return null;
    return {
      board: {
        nets: facts.nets,
        positions: facts.positions,
        fittedParts: facts.fittedParts,
        readings: facts.readings,
        chosen,
        emptyIds: leftEmptyIds(detail.plans),
      },
      netId: first.id,
      converter: withCapturedFrequency(known, shown?.analysis),
      railVolts: first.nominalVolts,
      loadAmps: load,
      temperatureCelsius: celsius,
    };
  }, [
    first,
    known,
    shown,
    facts.nets,
    facts.positions,
    facts.fittedParts,
    facts.readings,
    chosen,
    detail.plans,
    load,
    celsius,
  ]);
  const mostAmps = 1.2 * (full ?? load ?? 1);
  const answer = useRipplePrediction(question, mostAmps);
  const prediction = answer?.prediction ?? null;
  const attribution = useMemo(
    () =>
      shown
        ? rippleAttribution(
            shown.analysis,
            prediction && {
              volts: prediction.states.measured.loadPeakToPeakVolts,
              highVolts: prediction.highVolts,
            },
          )
        : null,
    [shown, prediction],
  );
  const columns = useMemo(() => {
    if (view === "window") {
      return shown && samples ? captureColumns(samples, shown.analysis.intervalSeconds, shown.analysis.meanVolts) : [];
    }
    if (!prediction) return [];
    const laid = shown && samples ? { samples, ...shown.analysis } : null;
    return rippleColumns(prediction, laid);
  }, [view, prediction, shown, samples]);
  const chart = useRef<HTMLDivElement>(null);
  const tellExport = useTellExport();
  // Where values are assumed, a third digit would say what nobody knows.
  const digits = prediction && prediction.effects.length > 0 ? 2 : 3;
  if (!net || !first || !known) {
    return <LensLayout board={<p className={text.softLine}>There is no such rail on this job.</p>} pane={<div />} />;
  }
  const limit = rippleLimitVolts(net, rules.rail);
  const figures = prediction?.states;

  async function exportAs(kind: "csv" | "png" | "netlist"): Promise<void> {
    const name = `${detail.job.number}-${net?.name ?? "rail"}`.replaceAll(/[^\w.-]+/g, "-");
    if (kind === "csv" && shown && samples) {
      download(`${name}.csv`, waveformCsv(samples, shown.analysis.intervalSeconds, shown.name), "text/csv");
      tellExport("capture_csv");
    }
    const drawn = chart.current?.querySelector<SVGSVGElement>("[data-ripple-chart] svg.recharts-surface");
    if (kind === "png" && drawn) {
      download(`${name}.png`, await chartPng(drawn), "image/png");
      tellExport("ripple_png");
    }
    if (kind === "netlist" && question) {
      const answered = await rippleWorker().netlist(question, `${name}: capacitors as read`);
      if ("found" in answered && answered.found) {
        download(`${name}.cir`, answered.found, "text/plain");
        tellExport("netlist");
      }
    }
  }

  return (
    <LensLayout
      paneWidth="medium"
      board={
        <div className={classes.charts} ref={chart}>
          <div className={classes.head}>
            <h1>Ripple of {net.name}</h1>
            <SegmentedControl
              aria-label="What is shown"
              value={view}
              data={[
                { value: "switching", label: "Two periods" },
                { value: "window", label: "Whole capture" },
                { value: "table", label: "Table" },
              ]}
              onChange={(value) => setView(value as View)}
            />
          </div>
          {known.kind === "linear" ? (
            <RegulatedNote net={net} converter={known} celsius={celsius} limitVolts={limit} />
          ) : (
            answer?.impossible && (
              <p role="alert" className={classes.story}>
                {impossibleWords(answer.impossible)}
              </p>
            )
          )}
          {answer && !answer.impossible && !prediction && (
            <p className={classes.story}>No capacitor of this rail has value and voltage: enter them in Inspect.</p>
          )}
          {figures && (
            <div className={classes.figures} role="status">
              {filterStates.map((state) => (
                <span key={state}>
                  <span className={classes.mark} data-state={state} />
                  {filterStateLabels[state]}{" "}
                  <b>
                    <Quantity value={figures[state].loadPeakToPeakVolts} unit="V" digits={digits} />
                  </b>
                </span>
              ))}
              {shown && (
                <span>
                  <span className={classes.mark} data-state="captured" />
                  {view === "window" ? "captured in all" : "captured, switching"}{" "}
                  <b>
                    <Quantity
                      value={
                        view === "window"
                          ? shown.analysis.quietPeakToPeakVolts
                          : (shown.analysis.switching?.peakToPeak ?? null)
                      }
                      unit="V"
                    />
                  </b>
                </span>
              )}
              {limit !== null && (
                <span className={text.softLine}>
                  limit <Quantity value={limit} unit="V" />,{" "}
                  {net.rippleLimitVolts === null ? "house rule" : "of this rail"}
                </span>
              )}
            </div>
          )}
          {prediction && <EdgeNote measured={prediction.states.measured} />}
          {limit !== null && <LimitNote limit={limit} sweep={answer?.sweep ?? []} />}
          {view === "table" && prediction ? (
            <RippleTable prediction={prediction} analysis={shown?.analysis ?? null} />
          ) : columns.length > 0 ? (
            <RippleChart columns={columns} limitVolts={limit} />
          ) : (
            <p className={text.softLine}>
              {view === "window" ? "Nothing captured on this rail yet." : "The prediction appears here."}
            </p>
          )}
          {figures && view !== "table" && <ShareChart measured={figures.measured} replaced={figures.replaced} />}
          <div className={classes.sliders}>
            <div>
              <div>
                Load <Quantity value={load} unit="A" />
              </div>
              <Slider
                aria-label="Load"
                thumbLabel="Load"
                min={0.02 * mostAmps}
                max={mostAmps}
                step={0.02 * mostAmps}
                value={load ?? mostAmps / 1.2}
                label={null}
                onChange={setLoadAmps}
              />
            </div>
            <div>
              <div>
                Capacitors at <Quantity value={celsius} unit="°C" />
              </div>
              <Slider
                aria-label="Temperature"
                thumbLabel="Temperature"
                min={-10}
                max={105}
                step={5}
                value={celsius}
                label={null}
                onChange={setCelsius}
              />
            </div>
          </div>
        </div>
      }
      pane={
        <Pane
          title="Ripple"
          note={<RailChoice netId={netId} />}
          actions={
            <div className={classes.acts}>
              <Button size="compact-sm" disabled={!samples} onClick={() => void exportAs("csv")}>
                Waveform CSV
              </Button>
              <Button size="compact-sm" disabled={view === "table"} onClick={() => void exportAs("png")}>
                Chart PNG
              </Button>
              <Button size="compact-sm" disabled={!prediction} onClick={() => void exportAs("netlist")}>
                SPICE netlist
              </Button>
            </div>
          }
          second={
            <>
              <ConverterForm net={first} converter={known} />
              {prediction && prediction.effects.length > 0 && (
                <Part title="Assumed">
                  <p className={text.softLine}>
                    As read, the ripple lies between <Quantity value={prediction.lowVolts} unit="V" /> and{" "}
                    <Quantity value={prediction.highVolts} unit="V" /> over what nobody entered:
                  </p>
                  <ul>
                    {prediction.effects.map((one) => (
                      <li key={one.key}>
                        {assumptionWords(one)}: <Quantity value={one.lowVolts} unit="V" /> to{" "}
                        <Quantity value={one.highVolts} unit="V" />
                      </li>
                    ))}
                  </ul>
                </Part>
              )}
              <p className={text.softLine}>
                “As read” takes readings out of circuit; parts without one count as new. The arithmetic is exact, the
                converter is what was told and assumed; docs/ripple.md says how.
              </p>
            </>
          }
        >
          <CaptureCard
            net={net}
            captures={captures}
            shown={shown}
            onShow={setShownId}
            attribution={attribution}
            prediction={prediction}
          />
          <MeterNote netId={netId} />
        </Pane>
      }
    />
  );
}
