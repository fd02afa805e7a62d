import { type BenchSupply, benchSupplySchema, routes } from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import { HttpProblem } from "../../http/problems";
import { callerFor, live, type Route } from "../../http/route";
import { requireOwnBench } from "../../instruments/ownBench";

/** The virtual supply behind the simulated instruments: which one lies there, and laying another one there. */
export function benchSupplyRoutes({ instruments, database, now }: AppContext): readonly Route[] {
  async function supply(benchId: string | null): Promise<BenchSupply | null> {
    const card = await instruments.askSimulated("SYST:SCEN:CARD?", benchId);
    const list = await instruments.askSimulated("SYST:SCEN:LIST?", benchId);
    if (card === null || list === null) return null;
    try {
      return { ...JSON.parse(card), choices: JSON.parse(list) } as BenchSupply;
    } catch {
      throw new HttpProblem("conflict", "The simulated bench does not say which supply lies on it.");
    }
  }
  return [
    live({
      method: "get",
      path: routes.benchSupply,
      right: "read",
      live: async (request, response) => {
        const { bench } = request.query;
        response.json(await supply(typeof bench === "string" && bench !== "" ? bench : null));
      },
    }),
    live({
      method: "put",
      path: routes.benchSupply,
      right: "measure",
      schema: benchSupplySchema,
      live: async (request, response, { body: { name, benchId = null } }) => {
        const caller = callerFor(request, null, now());
        if (benchId !== null) await database.read(now(), (scope) => requireOwnBench(scope, caller, benchId));
        if (instruments.isSupplyHeld(benchId)) {
          throw new HttpProblem("conflict", "A run goes on with the supply that lies there.");
        }
        const before = await supply(benchId);
        if (!before?.choices.some((one) => one.name === name)) {
          throw new HttpProblem("conflict", "There is no such supply.");
        }
        // A command gives no answer; the question behind it waits until it was carried out.
        await instruments.askSimulated(`SYST:SCEN ${name}\nSYST:SCEN?`, benchId);
        response.json(await supply(benchId));
      },
    }),
  ];
}
