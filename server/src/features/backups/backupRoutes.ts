import { routes } from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import { live, type Route } from "../../http/route";
import { backupState } from "../../records/backupFolder";

/** How old the newest backup is, for whoever looks after the shop. */
export const backupRoutes = ({ backupFolder }: AppContext): readonly Route[] => [
  live({
    method: "get",
    path: routes.backups,
    right: "read",
    live: async (_request, response) => {
      response.json(await backupState(backupFolder));
    },
  }),
];
