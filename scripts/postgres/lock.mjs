import { spawn } from "node:child_process";

/**
 * Holds a lock file while work runs. The lock is the kernel's: it goes with this process, however it ends, and with no
 * process id that somebody else may have got meanwhile.
 */
export async function withLock(path, work) {
  const holder = spawn("flock", [path, "sh", "-c", "echo held; cat >/dev/null"], {
    stdio: ["pipe", "pipe", "inherit"],
  });
  await new Promise((resolve, reject) => {
    holder.once("error", reject);
    holder.once("exit", () => reject(new Error(`${path} could not be locked.`)));
    holder.stdout.once("data", resolve);
  });
  try {
    return await work();
  } finally {
    const gone = new Promise((resolve) => holder.once("exit", resolve));
    holder.stdin.end();
    await gone;
  }
}
