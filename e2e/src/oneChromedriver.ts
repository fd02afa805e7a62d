import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort } from "./freePort";

/** Set-up of a whole browser run: one driver, and with it one Chromium for each row of files. */
export async function setup(): Promise<() => Promise<void>> {
  const port = await freePort();
  const address = `http://127.0.0.1:${port}`;
  const profile = mkdtempSync(join(tmpdir(), "pale-cap-browser-"));
  const driver = spawn("/usr/bin/chromedriver", [`--port=${port}`, "--log-level=OFF"], { stdio: "ignore" });
  const gone = new Promise((resolve) => driver.once("exit", resolve));
  process.env.PALE_CAP_CHROMEDRIVER = address;
  process.env.PALE_CAP_CHROMIUM_PROFILE = profile;
  return async () => {
    // Asked to shut down it ends its Chromium first; a signal alone would leave that running.
    await fetch(`${address}/shutdown`).catch(() => driver.kill("SIGTERM"));
    await gone;
    rmSync(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });
  };
}
