import { routes } from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import { QueryTypes } from "sequelize";
import type { AppContext } from "../../appContext";

/** What can be bought, each part with how many of it lie in the drawers. */
export function catalogueRoutes({ database }: AppContext): ExpressRouter {
  const router = Router();
  router.get(routes.catalogue, async (_request, response) => {
    const parts = await database.models.catalogueParts.findAll({ order: [["id", "ASC"]], raw: true });
    const stock = await database.sequelize.query<{ id: string; count: number }>(
      "SELECT catalogue_part_id AS id, sum(count)::int AS count FROM stock_items GROUP BY catalogue_part_id",
      { type: QueryTypes.SELECT },
    );
    const counts = new Map(stock.map((item) => [item.id, item.count]));
    response.json(
      parts.map((part) => ({ ...part, stockCount: counts.get((part as unknown as { id: string }).id) ?? 0 })),
    );
  });
  return router;
}
