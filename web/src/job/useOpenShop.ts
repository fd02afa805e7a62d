import { type Problem, routes, type ShopState } from "@pale-cap/contract";
import { useState } from "react";
import { useAppSelector } from "../app/store/hooks";
import { asProblem } from "../ui/ProblemNote";
import { useOpenShopMutation, useShopQuery } from "./shopApi";

const lookMilliseconds = 500;
/** A new database is made within seconds; after this something is wrong, and the page says what it sees. */
const patienceMilliseconds = 90_000;

/** Opens the shop or the demo in place of what is open, and comes back to the bench once it is there. */
export function useOpenShop() {
  const { data: shop } = useShopQuery();
  const [ask] = useOpenShopMutation();
  const [isOpening, setIsOpening] = useState(false);
  const [problem, setProblem] = useState<Problem>();
  // What waits belongs to the jobs of what is open.
  const waitingCount = useAppSelector(({ outbox }) => outbox.facts.length);
  const open = async (realm: ShopState["realm"]) => {
    setIsOpening(true);
    const refused = asProblem((await ask({ realm })).error);
    setProblem(refused);
    if (!refused && (await isOpened(realm))) globalThis.location.assign("/");
    setIsOpening(false);
  };
  return { shop, waitingCount, isOpening, problem, open };
}

async function isOpened(realm: ShopState["realm"]): Promise<boolean> {
  const until = performance.now() + patienceMilliseconds;
  while (performance.now() < until) {
    await new Promise((resolve) => setTimeout(resolve, lookMilliseconds));
    const found = await fetch(routes.shop)
      .then((answer) => answer.json() as Promise<ShopState>)
      .catch(() => null);
    if (found?.realm === realm) return true;
  }
  return false;
}
