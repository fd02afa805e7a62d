import type { Page } from "./page";

export const leadPassword = "winding window 9";

/** By the link on the console of a shop that begins: Maret Olm leads it, and is in. */
export async function enterAsFirstLead(page: Page, said: string): Promise<void> {
  await page.open(/\/welcome#\S+/.exec(said)?.[0] as string);
  await page.fill("Your name", "Maret Olm");
  await page.fill("Name you sign in with", "maret");
  await page.fill("Password", leadPassword);
  await page.click("Make the account");
  await page.seeNamed("Maret Olm, at no bench");
}

/** Sends as the page that is open, with its cookie. */
export const asPage = <T>(page: Page, path: string, body: object | null, method = body ? "POST" : "GET") =>
  page.driver.executeAsyncScript<T>(
    `const [path, body, method, done] = arguments;
     fetch("/api" + path, { method, headers: { "Content-Type": "application/json" }, ...(body ? { body: JSON.stringify(body) } : {}) })
       .then((answer) => answer.json()).then(done, (error) => done({ failed: String(error) }));`,
    ...[path, body, method],
  );
