import { randomUUID } from "node:crypto";
import { gzipSync } from "node:zlib";
import { afterAll, beforeAll } from "vitest";
import { type Browser, openBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";

/** What a journey prepares behind the browser's back, through the same doors. */
export function shopApi(server: ServerUnderTest) {
  const send = async <T>(path: string, body: object, method = "POST"): Promise<T> => {
    const answer = await fetch(`${server.address}/api${path}`, {
      method,
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
    return (await answer.json()) as T;
  };
  const load = async <T>(path: string) => (await (await fetch(`${server.address}/api${path}`)).json()) as T;
  const takeIn = async (parts: readonly object[]): Promise<void> => {
    const form = new FormData();
    const about = { id: randomUUID(), source: "test", rowCount: parts.length, personId: null };
    form.append("about", JSON.stringify(about));
    form.append("catalogue", new Blob([new Uint8Array(gzipSync(JSON.stringify(parts)))]), "rows.json.gz");
    const answer = await fetch(`${server.address}/api/catalogue/imports`, { method: "POST", body: form });
    if (answer.status !== 201) throw new Error(`catalogue: ${answer.status} ${await answer.text()}`);
  };
  return { address: server.address, send, load, takeIn };
}

/** A capacitor as the catalogue takes it. */
export const cataloguePart = (orderCode: string, more: object = {}) => ({
  ...{ maker: "Kelpin", series: "Tern", orderCode, capacitorClass: "lowz", capacitanceFarads: 1e-3, ratedVolts: 16 },
  ...{ temperatureClassCelsius: 105, diameterMetres: 0.01, heightMetres: 0.02, pitchMetres: 0.005, esrOhms: 0.046 },
  ...{ rippleAmpsRms: 1.2, ratedLifeHours: 4000, priceMinor: 40, printed: null, ...more },
});

/** An empty shop with a browser in front of it, for the journeys of one file; filled before the first of them. */
export function emptyShop() {
  const shop = {} as { server: ServerUnderTest; browser: Browser; page: Page; api: ReturnType<typeof shopApi> };
  beforeAll(async () => {
    shop.server = await openServer("none");
    shop.api = shopApi(shop.server);
    shop.browser = await openBrowser();
    shop.page = new Page(shop.browser.driver, shop.server.address);
  });
  afterAll(async () => {
    await shop.browser?.close();
    await shop.server?.close();
  });
  return shop;
}
