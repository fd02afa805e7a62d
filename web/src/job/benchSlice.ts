import type { NewReading } from "@pale-cap/contract";
import type { CircuitState, QuantityKind, Rig } from "@pale-cap/core";
import { createSlice, type PayloadAction } from "@reduxjs/toolkit";

/** What a probe is aimed at: a part by its position, or a rail by its net. */
export interface ProbeTarget {
  readonly kind: "part" | "rail";
  readonly id: string;
}

/** How readings are taken until told otherwise. */
export interface ProbeSettings {
  readonly quantity: QuantityKind;
  readonly circuitState: CircuitState;
  readonly esrFrequencyHertz: number;
  readonly capacitanceFrequencyHertz: number;
  readonly loadAmps: number | null;
  /** What stands between the mains and the unit; kept with every reading under power. */
  readonly rig: Rig;
}

/** A reading that was confirmed here and is not known to be stored yet. */
export interface UnsentReading {
  readonly jobId: string;
  readonly body: NewReading;
  /** What the server said when it refused; null while it is on its way or nobody answered. */
  readonly refusal: string | null;
}

interface BenchState {
  readonly openJobIds: readonly string[];
  readonly personId: string | null;
  readonly targets: Readonly<Record<string, ProbeTarget | undefined>>;
  readonly probe: ProbeSettings;
  readonly unsent: readonly UnsentReading[];
}

const storageKey = "pale-cap-bench";

type Remembered = Pick<BenchState, "openJobIds" | "personId" | "unsent">;

function remembered(): Remembered {
  try {
    const stored = JSON.parse(localStorage.getItem(storageKey) ?? "{}") as Partial<Remembered>;
    return { openJobIds: stored.openJobIds ?? [], personId: stored.personId ?? null, unsent: stored.unsent ?? [] };
  } catch {
    return { openJobIds: [], personId: null, unsent: [] };
  }
}

/** Keeps the open jobs, the person and what is not stored yet for the next visit: a closed tab loses no reading. */
export function remember(state: BenchState): void {
  const { openJobIds, personId, unsent } = state;
  localStorage.setItem(storageKey, JSON.stringify({ openJobIds, personId, unsent }));
}

const initialState: BenchState = {
  ...remembered(),
  targets: {},
  probe: {
    quantity: "esr",
    circuitState: "in_circuit",
    esrFrequencyHertz: 100e3,
    capacitanceFrequencyHertz: 120,
    loadAmps: 0,
    rig: { isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
  },
};

export const benchSlice = createSlice({
  name: "bench",
  initialState,
  reducers: {
    jobOpened(state, { payload }: PayloadAction<string>) {
      if (!state.openJobIds.includes(payload)) state.openJobIds = [...state.openJobIds, payload].slice(-4);
    },
    jobClosed(state, { payload }: PayloadAction<string>) {
      state.openJobIds = state.openJobIds.filter((id) => id !== payload);
    },
    personChosen(state, { payload }: PayloadAction<string | null>) {
      state.personId = payload;
    },
    targetSelected(state, { payload }: PayloadAction<{ jobId: string; target: ProbeTarget | undefined }>) {
      state.targets[payload.jobId] = payload.target;
    },
    readingConfirmed(state, { payload }: PayloadAction<{ jobId: string; body: NewReading }>) {
      const others = state.unsent.filter((one) => one.body.id !== payload.body.id);
      state.unsent = [...others, { ...payload, refusal: null }];
    },
    readingSettled(state, { payload }: PayloadAction<string>) {
      state.unsent = state.unsent.filter((one) => one.body.id !== payload);
    },
    readingRefused(state, { payload }: PayloadAction<{ id: string; refusal: string }>) {
      state.unsent = state.unsent.map((one) =>
        one.body.id === payload.id ? { ...one, refusal: payload.refusal } : one,
      );
    },
    probeSet(state, { payload }: PayloadAction<Partial<ProbeSettings>>) {
      state.probe = { ...state.probe, ...payload };
    },
  },
});

export const {
  jobOpened,
  jobClosed,
  personChosen,
  targetSelected,
  readingConfirmed,
  readingSettled,
  readingRefused,
  probeSet,
} = benchSlice.actions;
