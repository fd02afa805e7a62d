import type { ProblemCode } from "@pale-cap/contract";
import { createSlice, type PayloadAction } from "@reduxjs/toolkit";
import type { QueuedFact } from "./fact";

interface OutboxState {
  /** In the order of their ids, which is that of confirming. */
  readonly facts: readonly QueuedFact[];
  /** The last attempt got no answer: what is queued waits for the server. */
  readonly isServerSilent: boolean;
  /** Why it took nothing: it is away, somebody has to sign in, or too much came at once. */
  readonly waitsFor: ProblemCode | null;
  /** Nothing is kept on this computer: what is confirmed is safe only when the server has it. */
  readonly isStorageShut: boolean;
}

const initialState: OutboxState = { facts: [], isServerSilent: false, waitsFor: null, isStorageShut: false };

export const outboxSlice = createSlice({
  name: "outbox",
  initialState,
  reducers: {
    factsLaid: (state, { payload }: PayloadAction<readonly QueuedFact[]>): OutboxState => {
      if (payload.length === 0) return state;
      const laid = new Set(payload.map((fact) => fact.body.id));
      const facts = [...state.facts.filter((one) => !laid.has(one.body.id)), ...payload];
      return { ...state, facts: facts.sort((a, b) => (a.body.id < b.body.id ? -1 : 1)) };
    },
    factLeft: (state, { payload }: PayloadAction<string>): OutboxState => ({
      ...state,
      facts: state.facts.filter((one) => one.body.id !== payload),
    }),
    serverHeard: (
      state,
      { payload }: PayloadAction<{ readonly isAnswering: boolean; readonly because?: ProblemCode }>,
    ): OutboxState => {
      const waitsFor = payload.isAnswering ? null : (payload.because ?? "unavailable");
      return state.waitsFor === waitsFor ? state : { ...state, waitsFor, isServerSilent: !payload.isAnswering };
    },
    storageOpened: (state, { payload }: PayloadAction<boolean>): OutboxState =>
      state.isStorageShut === !payload ? state : { ...state, isStorageShut: !payload },
  },
});

export const { factsLaid, factLeft, serverHeard, storageOpened } = outboxSlice.actions;
