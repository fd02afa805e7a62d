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

interface BenchState {
  readonly openJobIds: readonly string[];
  readonly personId: string | null;
  readonly targets: Readonly<Record<string, ProbeTarget | undefined>>;
  readonly probe: ProbeSettings;
}

const storageKey = "pale-cap-bench";

type Remembered = Pick<BenchState, "openJobIds" | "personId">;

function remembered(): Remembered {
  try {
    const stored = JSON.parse(localStorage.getItem(storageKey) ?? "{}") as Partial<Remembered>;
    return { openJobIds: stored.openJobIds ?? [], personId: stored.personId ?? null };
  } catch {
    return { openJobIds: [], personId: null };
  }
}

/** Keeps the open jobs and the person for the next visit. */
export function remember(state: BenchState): void {
  const { openJobIds, personId } = state;
  localStorage.setItem(storageKey, JSON.stringify({ openJobIds, personId }));
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
    probeSet(state, { payload }: PayloadAction<Partial<ProbeSettings>>) {
      state.probe = { ...state.probe, ...payload };
    },
  },
});

export const { jobOpened, jobClosed, personChosen, targetSelected, probeSet } = benchSlice.actions;
