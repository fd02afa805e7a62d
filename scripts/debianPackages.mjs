import { spawnSync } from "node:child_process";
import { existsSync, readdirSync } from "node:fs";

/** Raised for what a person must do by hand; shown without a stack. */
export class NeedsPerson extends Error {}

const hasPostgres = () =>
  existsSync("/usr/lib/postgresql") &&
  readdirSync("/usr/lib/postgresql").some((version) =>
    ["initdb", "postgres"].every((name) => existsSync(`/usr/lib/postgresql/${version}/bin/${name}`)),
  );

const hasChromium = () => existsSync("/usr/bin/chromium") && existsSync("/usr/bin/chromedriver");

/** Debian's PostgreSQL, without a cluster of Debian's own. */
export function ensurePostgres() {
  if (hasPostgres()) return;
  console.log("PostgreSQL is missing; installing Debian's.");
  install(["postgresql"], { withoutDebianCluster: true });
  if (!hasPostgres()) throw new NeedsPerson("PostgreSQL was installed, but its server binaries were not found.");
}

/** Debian's Chromium and its driver, for the browser tests and the screenshots. */
export function ensureChromium() {
  if (hasChromium()) return;
  console.log("Chromium is missing; installing Debian's.");
  install(["chromium", "chromium-driver"], {});
  if (!hasChromium()) throw new NeedsPerson("Chromium was installed, but /usr/bin/chromium or its driver is missing.");
}

function install(packages, { withoutDebianCluster = false }) {
  const line = `sudo apt-get update && sudo apt-get install -y --no-install-recommends ${packages.join(" ")}`;
  const isRoot = process.getuid?.() === 0;
  const prefix = isRoot ? [] : canSudo() ? ["sudo", "-n"] : null;
  if (!prefix || !existsSync("/usr/bin/apt-get")) {
    throw new NeedsPerson(
      `${packages.join(" and ")} must be installed first. Run this once, then start again:\n\n  ${line}\n`,
    );
  }
  console.log("This takes a minute or two; what apt says follows.");
  const undo = withoutDebianCluster ? keepDebianFromCluster(prefix) : () => undefined;
  try {
    run([...prefix, "apt-get", "update", "-q"], line);
    run([...prefix, "apt-get", "install", "-y", "-q", "--no-install-recommends", ...packages], line);
  } finally {
    undo();
  }
}

const clusterSettings = "/etc/postgresql-common/createcluster.d";
const noCluster = `${clusterSettings}/pale-cap-no-main.conf`;

/** For the time of the installation alone: other users of PostgreSQL on this machine keep their own way. */
function keepDebianFromCluster(prefix) {
  run([...prefix, "mkdir", "-p", clusterSettings]);
  run([...prefix, "sh", "-c", `echo 'create_main_cluster = false' > ${noCluster}`]);
  return () => run([...prefix, "rm", "-f", noCluster]);
}

function canSudo() {
  return spawnSync("sudo", ["-n", "true"], { stdio: "ignore" }).status === 0;
}

function run([command, ...args], line) {
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };
  const result = spawnSync(command, args, { stdio: ["ignore", "inherit", "inherit"], env });
  if (result.status === 0) return;
  const remedy = line ? ` Run this by hand, then start again:\n\n  ${line}\n` : "";
  throw new NeedsPerson(`Installing did not work.${remedy}`);
}
