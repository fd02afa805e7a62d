import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { commonSources, ensureBuilt } from "./buildStamp.mjs";
import { NeedsPerson } from "./debianPackages.mjs";
import { checkout } from "./paths.mjs";

const sources = [
  "web/src",
  "web/public",
  "web/index.html",
  "web/vite.config.ts",
  "web/package.json",
  "web/tsconfig.json",
  ...commonSources,
];

/** Builds the client if anything it is made of changed since the last build. */
export async function ensureClientBuild() {
  await ensureBuilt({ folder: "web/dist", sources, build });
}

async function build(folder) {
  console.log("Building the client.");
  const vite = join(checkout, "node_modules/vite/bin/vite.js");
  const { status } = spawnSync(
    process.execPath,
    [vite, "build", "--logLevel", "warn", "--outDir", folder, "--emptyOutDir"],
    { cwd: join(checkout, "web"), stdio: ["ignore", "inherit", "inherit"] },
  );
  if (status !== 0) throw new NeedsPerson("The client could not be built; see the message above.");
}
