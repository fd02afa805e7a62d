import { createSlice, type PayloadAction } from "@reduxjs/toolkit";
import type { QueuedFact } from "./fact";

interface OutboxState {
  /** In the order in which they were confirmed. */
  readonly facts: readonly QueuedFact[];
  /** The last attempt got no answer: what is queued waits for the server. */
  readonly isServerSilent: boolean;
}

const initialState: OutboxState = { facts: [], isServerSilent: false };

export const outboxSlice = createSlice({
  name: "outbox",
  initialState,
  reducers: {
    factsRestored: (state, { payload }: PayloadAction<readonly QueuedFact[]>): OutboxState => ({
      ...state,
      facts: [...payload.filter((one) => !state.facts.some((fact) => fact.body.id === one.body.id)), ...state.facts],
    }),
    factConfirmed: (state, { payload }: PayloadAction<QueuedFact>): OutboxState => ({
      ...state,
      facts: [...state.facts.filter((one) => one.body.id !== payload.body.id), payload],
    }),
    factSettled: (state, { payload }: PayloadAction<string>): OutboxState => ({
      ...state,
      facts: state.facts.filter((one) => one.body.id !== payload),
    }),
    factRefused: (state, { payload }: PayloadAction<{ id: string; refusal: string | null }>): OutboxState => ({
      ...state,
      facts: state.facts.map((one) => (one.body.id === payload.id ? { ...one, refusal: payload.refusal } : one)),
    }),
    serverHeard: (state, { payload }: PayloadAction<boolean>): OutboxState => ({ ...state, isServerSilent: !payload }),
  },
});

export const { factsRestored, factConfirmed, factSettled, factRefused, serverHeard } = outboxSlice.actions;
