import { routes } from "@pale-cap/contract";
import { type Route, read } from "../../http/route";

/** What can be bought, with how many of it lie in the drawers. */
export const catalogueRoutes = (): readonly Route[] => [
  read({
    path: routes.catalogue,
    right: "read",
    read: async (scope) => {
      const parts = await scope.rows.catalogueParts.all({}, [["id", "ASC"]]);
      const stock = await scope.sql<{ id: string; count: number }>(
        "SELECT catalogue_part_id AS id, sum(count)::int AS count FROM stock_items GROUP BY catalogue_part_id",
      );
      const counts = new Map(stock.map((item) => [item.id, item.count]));
      return parts.map((part) => ({ ...part, stockCount: counts.get(part.id) ?? 0 }));
    },
  }),
];
