import { routes } from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import type { AppContext } from "../../appContext";

export function peopleRoutes({ database }: AppContext): ExpressRouter {
  const router = Router();
  router.get(routes.people, async (_request, response) => {
    response.json(await database.models.people.findAll({ order: [["name", "ASC"]], raw: true }));
  });
  return router;
}
