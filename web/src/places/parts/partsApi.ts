import {
  type CatalogueImport,
  type ImportOutcome,
  type NewOrder,
  type NewStockMovement,
  type OfferEdit,
  type OrderBasis,
  type OrderRow,
  path,
  type Receipt,
  routes,
  type StockItemDetail,
  type StockItemEdit,
  type SupplierRow,
  type SupplierValues,
} from "@pale-cap/contract";
import { api } from "../../api/api";

const item = (pattern: string, itemId: string) => path(pattern, { itemId }).slice(1);
/** A file of 200,000 rows takes its time. */
const importMilliseconds = 180_000;

interface ImportFile {
  readonly about: CatalogueImport;
  readonly rows: Blob;
}

function sentFile(route: string, { about, rows }: ImportFile) {
  const body = new FormData();
  body.append("about", JSON.stringify(about));
  body.append("catalogue", rows, "rows.json.gz");
  return { url: route.slice(1), method: "POST", body, timeout: importMilliseconds };
}

export const partsApi = api.injectEndpoints({
  endpoints: (build) => ({
    stockItem: build.query<StockItemDetail, string>({
      query: (itemId) => item(routes.stockItem, itemId),
      providesTags: ["Stock"],
    }),
    editStockItem: build.mutation<StockItemDetail, { readonly itemId: string; readonly body: StockItemEdit }>({
      query: ({ itemId, body }) => ({ url: item(routes.stockItem, itemId), method: "PATCH", body }),
      invalidatesTags: ["Stock"],
    }),
    moveStock: build.mutation<StockItemDetail, { readonly itemId: string; readonly body: NewStockMovement }>({
      query: ({ itemId, body }) => ({ url: item(routes.stockMovements, itemId), method: "POST", body }),
      invalidatesTags: ["Stock"],
    }),
    importCatalogue: build.mutation<ImportOutcome, ImportFile>({
      query: (file) => sentFile(routes.catalogueImports, file),
      invalidatesTags: ["Catalogue", "Stock"],
    }),
    importComponents: build.mutation<ImportOutcome, ImportFile>({
      query: (file) => sentFile(routes.componentImports, file),
      invalidatesTags: ["Catalogue"],
    }),
    suppliers: build.query<readonly SupplierRow[], void>({
      query: () => routes.suppliers.slice(1),
      providesTags: ["Orders"],
    }),
    addSupplier: build.mutation<readonly SupplierRow[], { readonly id: string; readonly values: SupplierValues }>({
      query: (body) => ({ url: routes.suppliers.slice(1), method: "POST", body }),
      invalidatesTags: ["Orders"],
    }),
    editSupplier: build.mutation<
      readonly SupplierRow[],
      {
        readonly supplierId: string;
        readonly body: { readonly writeId: string; readonly version: number; readonly values: SupplierValues };
      }
    >({
      query: ({ supplierId, body }) => ({ url: path(routes.supplier, { supplierId }).slice(1), method: "PATCH", body }),
      invalidatesTags: ["Orders"],
    }),
    setOffer: build.mutation<readonly SupplierRow[], { readonly supplierId: string; readonly body: OfferEdit }>({
      query: ({ supplierId, body }) => ({ url: path(routes.offers, { supplierId }).slice(1), method: "PUT", body }),
      invalidatesTags: ["Orders"],
    }),
    orderBasis: build.query<OrderBasis, void>({
      query: () => routes.orderNeeds.slice(1),
      providesTags: ["Orders", "Stock"],
    }),
    orders: build.query<readonly OrderRow[], void>({
      query: () => routes.orders.slice(1),
      providesTags: ["Orders"],
    }),
    placeOrder: build.mutation<readonly OrderRow[], NewOrder>({
      query: (body) => ({ url: routes.orders.slice(1), method: "POST", body }),
      invalidatesTags: ["Orders"],
    }),
    closeOrder: build.mutation<
      readonly OrderRow[],
      {
        readonly orderId: string;
        readonly body: { readonly writeId: string; readonly version: number; readonly isClosed: boolean };
      }
    >({
      query: ({ orderId, body }) => ({ url: path(routes.order, { orderId }).slice(1), method: "PATCH", body }),
      invalidatesTags: ["Orders"],
    }),
    receive: build.mutation<readonly OrderRow[], { readonly orderId: string; readonly body: Receipt }>({
      query: ({ orderId, body }) => ({ url: path(routes.orderReceipts, { orderId }).slice(1), method: "POST", body }),
      invalidatesTags: ["Orders", "Stock"],
    }),
  }),
});

export const {
  useStockItemQuery,
  useEditStockItemMutation,
  useMoveStockMutation,
  useImportCatalogueMutation,
  useImportComponentsMutation,
  useSuppliersQuery,
  useAddSupplierMutation,
  useEditSupplierMutation,
  useSetOfferMutation,
  useOrderBasisQuery,
  useOrdersQuery,
  usePlaceOrderMutation,
  useCloseOrderMutation,
  useReceiveMutation,
} = partsApi;
