// npm run people: accounts from the console of the machine. "list" names them; "link NAME" makes a one-time link by which NAME sets a
// new password; "lead NAME" makes NAME a lead again, where nobody else can. What it does stands in the audit.
import { ensurePostgres, NeedsPerson } from "./debianPackages.mjs";
import { ensurePackages } from "./npmPackages.mjs";

const usage = "npm run people -- list | link NAME | lead NAME   (NAME: what they sign in with)";

try {
  await ensurePackages();
  const [command, login] = process.argv.slice(2);
  if (!["list", "link", "lead"].includes(command) || (command !== "list" && !login)) throw new NeedsPerson(usage);
  const { register } = await import("tsx/esm/api");
  register();
  await onDatabase((url) => run(url, command, login));
} catch (error) {
  console.error(error instanceof NeedsPerson ? error.message : error);
  process.exitCode = 1;
}

/** The owner's address of the shop that is open in this checkout, or of the one that the environment names. */
async function onDatabase(work) {
  const foreign = process.env.DATABASE_OWNER_URL || process.env.DATABASE_URL;
  if (foreign) return work(foreign);
  ensurePostgres();
  const { existsSync } = await import("node:fs");
  const { join } = await import("node:path");
  const { openCluster, runningPort, stopPostgres } = await import("./postgres/cluster.mjs");
  const { shopPlaces } = await import("./postgres/places.mjs");
  const { openedWorld } = await import("./postgres/worlds.mjs");
  const places = shopPlaces();
  if (!existsSync(join(places.cluster, "PG_VERSION"))) throw new NeedsPerson("This checkout has no shop yet.");
  const wasRunning = runningPort(places.cluster) !== null;
  const { urls } = await openCluster(places);
  try {
    return await work(`${urls.owner}${openedWorld(places.folder)}`);
  } finally {
    if (!wasRunning) stopPostgres(places.cluster);
  }
}

async function run(url, command, login) {
  const { openDatabase } = await import("../server/src/database/database.ts");
  const { noCaller } = await import("../server/src/database/scope.ts");
  const { makeLink } = await import("../server/src/people/oneTimeLinks.ts");
  const { audit } = await import("../server/src/audit/audit.ts");
  const database = openDatabase(url, "shop", 1);
  try {
    await database.write(new Date(), noCaller, async (scope) => {
      const all = await scope.sql(
        `SELECT a.id, a.login, a.role, a.is_active, p.name FROM accounts a JOIN people p ON p.id = a.person_id ORDER BY a.login`,
      );
      if (command === "list") {
        for (const one of all) console.log(`${one.login}  ${one.name}  ${one.is_active ? one.role : "shut"}`);
        if (all.length === 0)
          console.log("Nobody has an account yet: starting with PALE_CAP_MODE=shop shows the link for the first.");
        return;
      }
      const account = all.find((one) => one.login === login.toLowerCase());
      if (!account)
        throw new NeedsPerson(
          `Nobody signs in as ${login}. These do: ${all.map((one) => one.login).join(", ") || "nobody"}`,
        );
      await scope.sql(
        `UPDATE accounts SET is_active = true, wrong_passwords = 0, password_locked_until = NULL, wrong_pins = 0, pin_locked_until = NULL
         ${command === "lead" ? ", role = 'lead'" : ""}, version = version + 1 WHERE id = $1 RETURNING id`,
        [account.id],
      );
      await audit(scope, command === "lead" ? "account_changed" : "link_made", {
        subject: account.login,
        details: { console: true },
      });
      if (command === "lead") {
        console.log(`${account.name} leads the shop now.`);
        return;
      }
      const link = await makeLink(scope, "set_password", account.id);
      console.log(
        `Within three days, once: open ${link.path} at the address of this Pale Cap, and set a new password for ${account.name}.`,
      );
    });
  } finally {
    await database.close();
  }
}
