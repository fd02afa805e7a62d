import type { RunningBench } from "@pale-cap/bench";
import { afterAll, beforeAll } from "vitest";
import { benchOnFreePorts } from "./benchOnFreePorts";
import { type Browser, openBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";
import { shopApi } from "./shopApi";

/** An empty shop with simulated benches and a browser in front of it, for the journeys of one file. */
export function benchShop() {
  const shop = {} as {
    bench: RunningBench;
    server: ServerUnderTest;
    browser: Browser;
    page: Page;
    api: ReturnType<typeof shopApi>;
  };
  beforeAll(async () => {
    shop.bench = await benchOnFreePorts();
    shop.server = await openServer("none", shop.bench.basePort);
    shop.api = shopApi(shop.server);
    shop.browser = await openBrowser();
    shop.page = new Page(shop.browser.driver, shop.server.address);
  });
  afterAll(async () => {
    await shop.browser?.close();
    await shop.server?.close();
    await shop.bench?.close();
  });
  return shop;
}
