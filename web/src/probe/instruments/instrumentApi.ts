import {
  type BenchSupply,
  type Capture,
  type Instrument,
  type InstrumentAct,
  type InstrumentState,
  type InstrumentValues,
  type NewWorkbench,
  path,
  routes,
  type Workbench,
} from "@pale-cap/contract";
import { api } from "../../api/api";
import { newId } from "../../api/newId";

const at = (pattern: string, instrumentId: string) => path(pattern, { instrumentId }).slice(1);

export const instrumentApi = api.injectEndpoints({
  endpoints: (build) => ({
    instruments: build.query<
      { readonly instruments: readonly Instrument[]; readonly states: readonly InstrumentState[] },
      void
    >({
      query: () => routes.instruments.slice(1),
      providesTags: ["Instruments"],
    }),
    addInstrument: build.mutation<Instrument, { readonly id: string; readonly values: InstrumentValues }>({
      query: (body) => ({ url: routes.instruments.slice(1), method: "POST", body }),
      invalidatesTags: ["Instruments"],
    }),
    editInstrument: build.mutation<
      Instrument,
      { readonly id: string; readonly version: number; readonly values: InstrumentValues }
    >({
      query: ({ id, version, values }) => ({
        url: at(routes.instrument, id),
        method: "PATCH",
        body: { writeId: newId(), version, values },
      }),
      invalidatesTags: ["Instruments"],
    }),
    removeInstrument: build.mutation<void, { readonly id: string; readonly version: number }>({
      query: ({ id, version }) => ({
        url: at(routes.instrument, id),
        method: "DELETE",
        body: { writeId: newId(), version },
      }),
      invalidatesTags: ["Instruments"],
    }),
    actOnInstrument: build.mutation<InstrumentState | null, { readonly id: string; readonly act: InstrumentAct }>({
      query: ({ id, act }) => ({ url: at(routes.instrumentActs, id), method: "POST", body: act }),
    }),
    captureWaveform: build.mutation<Capture, string>({
      query: (id) => at(routes.instrumentCapture, id),
    }),
    workbenches: build.query<readonly Workbench[], void>({
      query: () => routes.workbenches.slice(1),
      providesTags: ["Instruments"],
    }),
    addWorkbench: build.mutation<Workbench, NewWorkbench>({
      query: (body) => ({ url: routes.workbenches.slice(1), method: "POST", body }),
      invalidatesTags: ["Instruments"],
    }),
    renameWorkbench: build.mutation<
      Workbench,
      { readonly id: string; readonly version: number; readonly name: string }
    >({
      query: ({ id, version, name }) => ({
        url: path(routes.workbench, { benchId: id }).slice(1),
        method: "PATCH",
        body: { writeId: newId(), version, name },
      }),
      invalidatesTags: ["Instruments"],
    }),
    benchSupply: build.query<BenchSupply | null, string>({
      query: (benchId) => `${routes.benchSupply.slice(1)}?bench=${benchId}`,
      providesTags: ["Instruments"],
    }),
    chooseSupply: build.mutation<BenchSupply | null, { readonly name: string; readonly benchId: string }>({
      query: (body) => ({ url: routes.benchSupply.slice(1), method: "PUT", body }),
      invalidatesTags: ["Instruments"],
    }),
  }),
});

export const {
  useInstrumentsQuery,
  useAddInstrumentMutation,
  useEditInstrumentMutation,
  useRemoveInstrumentMutation,
  useActOnInstrumentMutation,
  useCaptureWaveformMutation,
  useBenchSupplyQuery,
  useChooseSupplyMutation,
  useWorkbenchesQuery,
  useAddWorkbenchMutation,
  useRenameWorkbenchMutation,
} = instrumentApi;

/** Nothing of an instrument is touched but what is named. */
export const noAct: InstrumentAct = {
  points: null,
  circuitState: null,
  function: null,
  frequencyHertz: null,
  settings: null,
};
