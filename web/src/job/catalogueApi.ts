import { routes, type StockedPart } from "@pale-cap/contract";
import { api } from "../api/api";

export const catalogueApi = api.injectEndpoints({
  endpoints: (build) => ({
    catalogue: build.query<readonly StockedPart[], void>({ query: () => routes.catalogue.slice(1) }),
  }),
});

export const { useCatalogueQuery } = catalogueApi;
