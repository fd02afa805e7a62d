import { openShopSchema, routes, type ShopState } from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import { HttpProblem } from "../../http/problems";
import { live, type Route } from "../../http/route";

/** Which world is open, the shop's or the demo's; and the way to the other. */
export const shopRoutes = ({ database, openWorld }: AppContext): readonly Route[] => [
  live({
    method: "get",
    path: routes.shop,
    right: "read",
    live: (_request, response) => {
      const realm = database.realm === "demo" ? "demo" : "shop";
      response.json({ realm, canOpenOther: openWorld !== null } satisfies ShopState);
    },
  }),
  live({
    method: "post",
    path: routes.shop,
    right: "open_shop",
    schema: openShopSchema,
    live: async (_request, response, { body }) => {
      if (!openWorld) {
        throw new HttpProblem("conflict", "This server was given one database and knows of no other.");
      }
      if (body.realm === database.realm) throw new HttpProblem("conflict", "This is what is open.");
      await openWorld(body.realm);
      response.status(202).end();
    },
  }),
];
