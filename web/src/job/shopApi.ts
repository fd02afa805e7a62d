import { type OpenShop, routes, type ShopState } from "@pale-cap/contract";
import { api } from "../api/api";

export const shopApi = api.injectEndpoints({
  endpoints: (build) => ({
    shop: build.query<ShopState, void>({ query: () => routes.shop.slice(1) }),
    openShop: build.mutation<void, OpenShop>({
      query: (body) => ({ url: routes.shop.slice(1), method: "POST", body }),
    }),
  }),
});

export const { useShopQuery, useOpenShopMutation } = shopApi;
