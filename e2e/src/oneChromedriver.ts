import { spawn } from "node:child_process";
import { freePort } from "./freePort";

/** Set-up of a whole browser run: one driver, and with it one Chromium, for all its files. */
export async function setup(): Promise<() => Promise<void>> {
  const port = await freePort();
  const driver = spawn("/usr/bin/chromedriver", [`--port=${port}`, "--log-level=OFF"], { stdio: "ignore" });
  process.env.PALE_CAP_CHROMEDRIVER = `http://127.0.0.1:${port}`;
  return async () => {
    const gone = new Promise((resolve) => driver.once("exit", resolve));
    // The driver takes its Chromium along.
    if (driver.kill("SIGTERM")) await gone;
  };
}
