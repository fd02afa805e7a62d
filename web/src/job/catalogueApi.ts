import {
  type CataloguePage,
  type CatalogueReach,
  type CatalogueRow,
  type CatalogueSearch,
  type NewStockAct,
  type NewStockItem,
  path,
  type ReachedParts,
  routes,
  type StockItem,
  type StockItemDetail,
} from "@pale-cap/contract";
import type { CatalogueComponent, ComponentKind } from "@pale-cap/core";
import { api } from "../api/api";

type Query = Readonly<Record<string, string | number | boolean | null>>;

/** An address with its query; what is not asked stays empty. */
const asked = (route: string, query: Query) =>
  `${route.slice(1)}?${new URLSearchParams(Object.entries(query).map(([name, value]) => [name, String(value ?? "")]))}`;

/** What can be bought and what lies in the drawers, as a job and the Parts place ask for it. */
export const catalogueApi = api.injectEndpoints({
  endpoints: (build) => ({
    catalogue: build.query<CataloguePage, CatalogueSearch>({
      query: (search) => asked(routes.catalogue, search),
      providesTags: ["Catalogue", "Stock"],
    }),
    reached: build.query<ReachedParts, CatalogueReach>({
      query: (reach) => asked(routes.catalogueReach, reach as Query),
      providesTags: ["Catalogue", "Stock"],
    }),
    catalogueParts: build.query<readonly CatalogueRow[], readonly string[]>({
      query: (ids) => asked(routes.catalogueParts, { ids: ids.join(",") }),
      providesTags: ["Catalogue", "Stock"],
    }),
    components: build.query<readonly CatalogueComponent[], ComponentKind>({
      query: (kind) => asked(routes.catalogueComponents, { kind }),
      providesTags: ["Catalogue"],
    }),
    componentsById: build.query<readonly CatalogueComponent[], readonly string[]>({
      query: (ids) => asked(routes.catalogueComponents, { ids: ids.join(",") }),
      providesTags: ["Catalogue"],
    }),
    addStockItem: build.mutation<StockItemDetail, NewStockItem>({
      query: (body) => ({ url: routes.stock.slice(1), method: "POST", body }),
      invalidatesTags: ["Stock"],
    }),
    logStockAct: build.mutation<StockItemDetail, { readonly itemId: string; readonly body: NewStockAct }>({
      query: ({ itemId, body }) => ({ url: path(routes.stockActs, { itemId }).slice(1), method: "POST", body }),
      invalidatesTags: ["Stock"],
    }),
    stock: build.query<readonly StockItem[], void>({
      query: () => routes.stock.slice(1),
      providesTags: ["Stock"],
    }),
  }),
});

export const {
  useCatalogueQuery,
  useReachedQuery,
  useCataloguePartsQuery,
  useStockQuery,
  useComponentsQuery,
  useComponentsByIdQuery,
  useAddStockItemMutation,
  useLogStockActMutation,
} = catalogueApi;
