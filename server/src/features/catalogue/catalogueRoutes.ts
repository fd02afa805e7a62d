import { routes } from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import type { AppContext } from "../../appContext";

export function catalogueRoutes({ database }: AppContext): ExpressRouter {
  const router = Router();
  router.get(routes.catalogue, async (_request, response) => {
    response.json(await database.models.catalogueParts.findAll({ order: [["id", "ASC"]], raw: true }));
  });
  return router;
}
