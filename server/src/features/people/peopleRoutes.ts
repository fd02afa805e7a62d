import { routes } from "@pale-cap/contract";
import { type Route, read } from "../../http/route";

export const peopleRoutes = (): readonly Route[] => [
  read({ path: routes.people, right: "read", read: (scope) => scope.rows.people.all({}, [["name", "ASC"]]) }),
];
