import { type EnergyStoreEdit, type EnergyStoreRow, type NewEnergyStore, routes } from "@pale-cap/contract";
import { api } from "../../api/api";
import { type OnJob, url } from "../../job/onJob";
import { byId, patching, upsert } from "../../job/patching";

export const storeApi = api.injectEndpoints({
  endpoints: (build) => ({
    addEnergyStore: build.mutation<EnergyStoreRow, OnJob<NewEnergyStore>>({
      query: ({ jobId, body }) => ({ url: url(routes.energyStores, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, row) => ({ ...detail, energyStores: upsert(detail.energyStores, row, byId) })),
    }),
    editEnergyStore: build.mutation<EnergyStoreRow, OnJob<EnergyStoreEdit> & { readonly storeId: string }>({
      query: ({ jobId, storeId, body }) => ({
        url: url(routes.energyStore, jobId, { storeId }),
        method: "PATCH",
        body,
      }),
      onQueryStarted: patching((detail, row) => ({
        ...detail,
        energyStores: detail.energyStores.map((one) => (one.id === row.id ? row : one)),
      })),
    }),
  }),
});

export const { useAddEnergyStoreMutation, useEditEnergyStoreMutation } = storeApi;
