import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Builder, type WebDriver } from "selenium-webdriver";
import { Driver, Options, ServiceBuilder } from "selenium-webdriver/chrome";
import { Executor, HttpClient } from "selenium-webdriver/http";

export interface View {
  readonly width: number;
  readonly height: number;
  readonly scheme: "light" | "dark";
}

export interface Browser {
  readonly driver: WebDriver;
  close(): Promise<void>;
}

const chromiumArguments = [
  "--headless=new",
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--hide-scrollbars",
  "--force-prefers-reduced-motion",
  "--lang=en-GB",
];

interface DevTools {
  sendDevToolsCommand(command: string, parameters: object): Promise<void>;
}

/** What the driver's types do not say that it can. */
export const devTools = (driver: WebDriver) => driver as unknown as DevTools;

/**
 * Debian's Chromium without a window; nothing is downloaded. In a test run all files of a row share one: each has a server and
 * with it an origin of its own, so that nothing of one is seen by another.
 *
 * @param keptProfile a profile that outlives this browser, in a Chromium of its own
 */
export async function openBrowser(
  view: View = { width: 1280, height: 800, scheme: "light" },
  keptProfile?: string,
): Promise<Browser> {
  const { PALE_CAP_CHROMEDRIVER: driverAddress, PALE_CAP_CHROMIUM_PROFILE: sharedProfile } = process.env;
  if (driverAddress && sharedProfile && !keptProfile) {
    const profile = join(sharedProfile, process.env.VITEST_POOL_ID ?? "1");
    shared ??= Driver.createSession(optionsWith(profile), new Executor(new HttpClient(driverAddress)));
    await resize(shared, view);
    const driver = shared;
    return { driver, close: () => driver.get("about:blank") };
  }
  const profile = keptProfile ?? mkdtempSync(join(tmpdir(), "pale-cap-browser-"));
  const driver = await new Builder()
    .forBrowser("chrome")
    .setChromeOptions(optionsWith(profile))
    .setChromeService(new ServiceBuilder("/usr/bin/chromedriver"))
    .build();
  await resize(driver, view);
  return {
    driver,
    close: async () => {
      await driver.quit();
      if (!keptProfile) rmSync(profile, { recursive: true, force: true });
    },
  };
}

/** A Chromium of its own, for what must not touch the shared one's pages. */
export async function openOwnBrowser(): Promise<Browser> {
  const profile = mkdtempSync(join(tmpdir(), "pale-cap-browser-"));
  const own = await openBrowser(undefined, profile);
  return {
    driver: own.driver,
    close: async () => {
      await own.close();
      rmSync(profile, { recursive: true, force: true });
    },
  };
}

/** The Chromium of this row of files; it ends with the driver that oneChromedriver started. */
let shared: WebDriver | undefined;

function optionsWith(profile: string): Options {
  const options = new Options();
  options.setChromeBinaryPath("/usr/bin/chromium");
  options.addArguments(...chromiumArguments, `--user-data-dir=${profile}`);
  return options;
}

/** Sets the page's own size (not the window's) and the preferred colour scheme. */
export async function resize(driver: WebDriver, view: View): Promise<void> {
  const tools = devTools(driver);
  await tools.sendDevToolsCommand("Emulation.setDeviceMetricsOverride", {
    width: view.width,
    height: view.height,
    deviceScaleFactor: 1,
    mobile: false,
  });
  await tools.sendDevToolsCommand("Emulation.setEmulatedMedia", {
    features: [{ name: "prefers-color-scheme", value: view.scheme }],
  });
}
