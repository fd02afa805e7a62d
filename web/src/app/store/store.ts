import { configureStore } from "@reduxjs/toolkit";
import { api } from "../../api/api";
import { layAnswers } from "../../job/patching";
import { remember, workplaceSlice } from "../../job/workplaceSlice";
import { outboxSlice } from "../../outbox/outboxSlice";
import { instrumentSlice } from "../../probe/instruments/instrumentSlice";

export const store = configureStore({
  reducer: {
    [api.reducerPath]: api.reducer,
    [workplaceSlice.name]: workplaceSlice.reducer,
    [instrumentSlice.name]: instrumentSlice.reducer,
    [outboxSlice.name]: outboxSlice.reducer,
  },
  middleware: (defaults) => defaults().prepend(layAnswers).concat(api.middleware),
});

store.subscribe(() => remember(store.getState().workplace));

export type AppState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;
