import type { InstrumentState } from "@pale-cap/contract";
import type { CircuitState, QuantityKind } from "@pale-cap/core";
import { useCallback } from "react";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { asProblem } from "../../ui/ProblemNote";
import { noAct, useActOnInstrumentMutation } from "./instrumentApi";
import { usePageBench } from "./usePageBench";
import { whoReads } from "./whoReads";

/** Where a probe should be and what it should read there. */
export interface Aim {
  readonly points: string | null;
  readonly quantity: QuantityKind;
  readonly circuitState: CircuitState | null;
  readonly frequencyHertz: number | null;
}

export interface Live {
  /** The instrument that could read this; null where none is connected. */
  readonly instrument: InstrumentState | null;
  /** Its value, if its probes are where the bar is aimed; null while it reads nothing there. */
  readonly value: number | null;
  readonly raw: string | null;
  /** The probes sit at the target and read what is asked for. */
  readonly isHere: boolean;
  readonly isSteady: boolean;
  /** Reads, and reads open: beyond its range. */
  readonly isOpen: boolean;
  readonly at: string | null;
  /** Why its probes could not be brought here. */
  readonly refusal: string | null;
}

const nobody: Live = {
  instrument: null,
  value: null,
  raw: null,
  isHere: false,
  isSteady: false,
  isOpen: false,
  at: null,
  refusal: null,
};

/** What the fitting instrument says at a target, and the act that brings its probes there. */
export function useLive(aim: Aim): readonly [Live, () => Promise<void>] {
  const reader = whoReads[aim.quantity];
  const { takesSimulated } = useJob().detail.job;
  const { bench } = usePageBench();
  const instrument = useAppSelector((state) =>
    reader
      ? readerOf(Object.values(state.instruments.states), reader.kind, takesSimulated, bench?.id ?? null)
      : undefined,
  );
  const [act, { error, originalArgs }] = useActOnInstrumentMutation();
  const id = instrument?.id;
  const probe = useCallback(async () => {
    const wanted = whoReads[aim.quantity];
    if (!id || !wanted || aim.points === null) return;
    await act({
      id,
      act: {
        ...noAct,
        points: wanted.kind === "mains" ? null : aim.points,
        circuitState: aim.circuitState,
        function: wanted.function,
        frequencyHertz: wanted.kind === "lcr" ? aim.frequencyHertz : null,
      },
    });
  }, [act, id, aim.points, aim.quantity, aim.circuitState, aim.frequencyHertz]);
  // What the instrument said against these very points; moving on leaves it behind.
  const refusal = error && originalArgs?.act.points === aim.points ? (asProblem(error)?.detail ?? null) : null;
  return [{ ...liveOf(instrument, aim), refusal }, probe];
}

/** Of this page's bench; who works at none has none, whatever lies under the probes of another. A simulated instrument reads its own supply: never on a customer's unit, and behind a real one elsewhere. */
export function readerOf(
  states: readonly InstrumentState[],
  kind: InstrumentState["kind"],
  takesSimulated: boolean,
  benchId: string | null,
): InstrumentState | undefined {
  const fitting = states.filter((one) => one.kind === kind && one.benchId === benchId);
  return fitting.find((one) => !one.isSimulated) ?? (takesSimulated ? fitting[0] : undefined);
}

function liveOf(instrument: InstrumentState | undefined, aim: Aim): Live {
  const reader = whoReads[aim.quantity];
  if (!instrument || !reader) return nobody;
  const { reading } = instrument;
  if (!reading || reading.function !== reader.function) return { ...nobody, instrument };
  const isThere = reader.kind === "mains" || (reading.points !== null && reading.points === aim.points);
  const isAlike =
    reader.kind !== "lcr" ||
    (reading.circuitState === aim.circuitState &&
      (aim.frequencyHertz === null || reading.frequencyHertz === aim.frequencyHertz));
  if (!isThere || !isAlike) return { ...nobody, instrument };
  const { value, raw, isSteady, at } = reading;
  const isOpen = value === null && instrument.status === "ready" && instrument.trouble === null;
  return { instrument, value, raw, isHere: true, isSteady, isOpen, at, refusal: null };
}
