import { configureStore } from "@reduxjs/toolkit";
import { api } from "../api/api";
import { instrumentSlice } from "../instruments/instrumentSlice";
import { outboxSlice } from "../outbox/outboxSlice";
import { benchSlice, remember } from "./benchSlice";

export const store = configureStore({
  reducer: {
    [api.reducerPath]: api.reducer,
    [benchSlice.name]: benchSlice.reducer,
    [instrumentSlice.name]: instrumentSlice.reducer,
    [outboxSlice.name]: outboxSlice.reducer,
  },
  middleware: (defaults) => defaults().concat(api.middleware),
});

store.subscribe(() => remember(store.getState().bench));

export type AppState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;
