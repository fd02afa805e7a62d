import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Builder, type WebDriver } from "selenium-webdriver";
import { Options, ServiceBuilder } from "selenium-webdriver/chrome";

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

/**
 * Debian's Chromium without a window; nothing is downloaded.
 *
 * @param keptProfile a profile that outlives this browser; by default one of its own
 */
export async function openBrowser(
  view: View = { width: 1280, height: 800, scheme: "light" },
  keptProfile?: string,
): Promise<Browser> {
  const profile = keptProfile ?? mkdtempSync(join(tmpdir(), "pale-cap-browser-"));
  const options = new Options();
  options.setChromeBinaryPath("/usr/bin/chromium");
  options.addArguments(...chromiumArguments, `--user-data-dir=${profile}`);
  const driver = await new Builder()
    .forBrowser("chrome")
    .setChromeOptions(options)
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

/** Sets the page's own size (not the window's) and the preferred colour scheme. */
export async function resize(driver: WebDriver, view: View): Promise<void> {
  const tools = driver as unknown as DevTools;
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
