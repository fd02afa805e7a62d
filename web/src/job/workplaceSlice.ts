import type { CircuitState, QuantityKind, Rig } from "@pale-cap/core";
import { createSlice, type PayloadAction } from "@reduxjs/toolkit";

/** What a probe is aimed at: a part by its position, a rail by its net, or the whole unit by its job. */
export interface ProbeTarget {
  readonly kind: "part" | "rail" | "unit";
  readonly id: string;
  /** Which pins, where there are more than two. */
  readonly terminals?: string;
  /** The new part of the place that lies there and is not soldered yet. */
  readonly isNewPart?: boolean;
}

/** Instead of pins of the unit: the tips of the meter on each other, so that its leads are read and nothing else. */
export const tipsTogether = "tips";

/** How readings are taken until told otherwise. */
export interface ProbeSettings {
  readonly quantity: QuantityKind;
  readonly circuitState: CircuitState;
  readonly esrFrequencyHertz: number;
  readonly capacitanceFrequencyHertz: number;
  readonly loadAmps: number | null;
  /** Of the board while it is read; null: a usual room. */
  readonly temperatureCelsius: number | null;
  /** What the tester's leads add; 0 once they are zeroed. */
  readonly leadOhms: number;
  /** The known volts and resistor of a home-made leakage test. */
  readonly testVolts: number | null;
  readonly seriesOhms: number | null;
  /** What stands between the mains and the unit; kept with every reading under power. */
  readonly rig: Rig;
}

/** How the bar works with an instrument and with a hand that is not free. */
export interface BarHabits {
  /** The probes of the simulated bench go where the bar is aimed. */
  readonly isFollowing: boolean;
  /** A live value is logged by itself once it stands still. */
  readonly isHolding: boolean;
  /** High for inside the band, low for outside. */
  readonly isTone: boolean;
}

interface Workplace {
  readonly openJobIds: readonly string[];
  readonly personId: string | null;
  /** People sign in here, and a page stands at the bench that they named. */
  readonly isShop: boolean;
  /** Where this page stands; null: alone at the first bench, in a shop at none. */
  readonly benchId: string | null;
  readonly targets: Readonly<Record<string, ProbeTarget | undefined>>;
  /** Which board of each job is drawn; the first until another is asked for. */
  readonly shownBoards: Readonly<Record<string, string | undefined>>;
  /** How each part is held while it is read: lifted, or out, belongs to it and never passes to the next. */
  readonly circuitStates: Readonly<Record<string, CircuitState>>;
  readonly probe: ProbeSettings;
  /** Thousands by which a bare number is shifted, by job, section and quantity. */
  readonly decades: Readonly<Record<string, number>>;
  readonly habits: BarHabits;
}

const storageKey = "pale-cap-bench";

type Remembered = Pick<Workplace, "openJobIds" | "personId" | "benchId" | "habits">;

const usualHabits: BarHabits = { isFollowing: false, isHolding: false, isTone: false };

function remembered(): Remembered {
  try {
    const stored = JSON.parse(localStorage.getItem(storageKey) ?? "{}") as Partial<Remembered>;
    const habits = { ...usualHabits, ...stored.habits };
    const { openJobIds = [], personId = null, benchId = null } = stored;
    return { openJobIds, personId, benchId, habits };
  } catch {
    return { openJobIds: [], personId: null, benchId: null, habits: usualHabits };
  }
}

/** Keeps the open jobs and the person for the next visit. */
export function remember(state: Workplace): void {
  const { openJobIds, personId, benchId, habits } = state;
  localStorage.setItem(storageKey, JSON.stringify({ openJobIds, personId, benchId, habits }));
}

const initialState: Workplace = {
  ...remembered(),
  isShop: false,
  targets: {},
  shownBoards: {},
  circuitStates: {},
  decades: {},
  probe: {
    quantity: "esr",
    circuitState: "in_circuit",
    esrFrequencyHertz: 100e3,
    capacitanceFrequencyHertz: 120,
    loadAmps: 0,
    temperatureCelsius: null,
    leadOhms: 0,
    testVolts: null,
    seriesOhms: null,
    rig: { isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
  },
};

export const workplaceSlice = createSlice({
  name: "workplace",
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
    benchChosen(state, { payload }: PayloadAction<string>) {
      state.benchId = payload;
    },
    /** Who signed in here, and at which bench. */
    shopEntered(state, { payload }: PayloadAction<{ readonly personId: string; readonly benchId: string | null }>) {
      state.isShop = true;
      state.personId = payload.personId;
      state.benchId = payload.benchId;
    },
    targetSelected(state, { payload }: PayloadAction<{ jobId: string; target: ProbeTarget | undefined }>) {
      const before = state.targets[payload.jobId];
      const { target } = payload;
      state.targets[payload.jobId] = target;
      if (!target || target.id === before?.id) return;
      if (before?.kind === "part") state.circuitStates[before.id] = state.probe.circuitState;
      if (target.kind === "part") state.probe.circuitState = state.circuitStates[target.id] ?? "in_circuit";
      // What is read on a rail is not what a part is asked for, nor the other way round.
      if (before && target.kind !== before.kind) state.probe.quantity = target.kind === "part" ? "esr" : "dc_voltage";
      // The load of one rail is not the load of another.
      if (target.kind === "rail") state.probe.loadAmps = 0;
    },
    boardShown(state, { payload }: PayloadAction<{ readonly jobId: string; readonly boardId: string }>) {
      state.shownBoards[payload.jobId] = payload.boardId;
    },
    probeSet(state, { payload }: PayloadAction<Partial<ProbeSettings>>) {
      state.probe = { ...state.probe, ...payload };
    },
    decadeShifted(state, { payload }: PayloadAction<{ readonly key: string; readonly shift: number }>) {
      state.decades[payload.key] = payload.shift;
    },
    habitsSet(state, { payload }: PayloadAction<Partial<BarHabits>>) {
      state.habits = { ...state.habits, ...payload };
    },
  },
});

export const {
  jobOpened,
  jobClosed,
  personChosen,
  benchChosen,
  shopEntered,
  targetSelected,
  boardShown,
  probeSet,
  decadeShifted,
  habitsSet,
} = workplaceSlice.actions;
