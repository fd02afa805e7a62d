import { configureStore } from "@reduxjs/toolkit";
import { api } from "../../api/api";
import { benchSlice, remember } from "../../job/workplaceSlice";
import { outboxSlice } from "../../outbox/outboxSlice";
import { instrumentSlice } from "../../probe/instruments/instrumentSlice";

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
