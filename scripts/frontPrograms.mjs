import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { NeedsPerson } from "./debianPackages.mjs";
import { runFolder } from "./paths.mjs";

const packages = ["nginx", "pgbouncer", "libc-ares2", "libevent-2.1-7"];

/**
 * Debian's nginx and PgBouncer, for the test of what may stand in front and behind: unpacked beside the checkout's other scratch, not
 * installed, so that no service is started on this machine.
 *
 * @returns the two programs and what they need to be run
 */
export function ensureFrontPrograms() {
  const folder = join(runFolder(), "front-programs");
  const nginx = join(folder, "usr/sbin/nginx");
  const pgbouncer = join(folder, "usr/sbin/pgbouncer");
  if (!existsSync(nginx) || !existsSync(pgbouncer)) {
    mkdirSync(folder, { recursive: true });
    const options = { cwd: folder, stdio: ["ignore", "ignore", "pipe"], encoding: "utf8" };
    let got = spawnSync("apt-get", ["download", "-q", ...packages], options);
    if (got.status !== 0 && process.getuid?.() === 0) {
      spawnSync("apt-get", ["update", "-q"], options);
      got = spawnSync("apt-get", ["download", "-q", ...packages], options);
    }
    if (got.status !== 0) throw new NeedsPerson(`nginx and PgBouncer could not be fetched: ${got.stderr ?? got.error}`);
    for (const file of readdirSync(folder).filter((name) => name.endsWith(".deb"))) {
      const { status, stderr } = spawnSync("dpkg", ["-x", file, "."], options);
      if (status !== 0) throw new NeedsPerson(`${file} could not be unpacked: ${stderr}`);
    }
  }
  const libraries = ["usr/lib/x86_64-linux-gnu", "usr/lib/aarch64-linux-gnu"].map((one) => join(folder, one));
  return { nginx, pgbouncer, env: { ...process.env, LD_LIBRARY_PATH: libraries.join(":") } };
}
