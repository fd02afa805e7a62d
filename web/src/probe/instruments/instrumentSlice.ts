import type { InstrumentState } from "@pale-cap/contract";
import { createSlice, type PayloadAction } from "@reduxjs/toolkit";

interface Instruments {
  readonly states: Readonly<Record<string, InstrumentState>>;
  /** The stream from the server stands. */
  readonly isStreaming: boolean;
}

const initialState: Instruments = { states: {}, isStreaming: false };

/** What the instruments say now. Nothing of it is kept: a value becomes a reading only when somebody logs it. */
export const instrumentSlice = createSlice({
  name: "instruments",
  initialState,
  reducers: {
    stateTold(state, { payload }: PayloadAction<InstrumentState>) {
      state.states[payload.id] = payload;
    },
    streamOpened(state) {
      state.isStreaming = true;
      state.states = {};
    },
    streamClosed(state) {
      state.isStreaming = false;
      state.states = {};
    },
  },
});

export const { stateTold, streamOpened, streamClosed } = instrumentSlice.actions;
