import { routes } from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import { live, type Route } from "../../http/route";

/** What the instruments say now, for as long as somebody looks. */
export const instrumentStreamRoutes = ({ instruments, streams, sessions }: AppContext): readonly Route[] => [
  live({
    method: "get",
    path: routes.instrumentStream,
    right: "read",
    live: (request, response) => {
      let stopListening = () => {};
      const send = streams.begin(request, response, () => stopListening(), sessions);
      for (const state of instruments.states) send(state);
      stopListening = instruments.listen(send);
    },
  }),
];
