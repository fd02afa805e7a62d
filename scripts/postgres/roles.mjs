/** The database of a shop. */
export const databaseName = "pale_cap";

/** Runs work on one connection. `pg` is there by now: packages are installed before any cluster is opened. */
export async function connected(url, work) {
  const { default: pg } = await import("pg");
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** Three roles: the superuser for these scripts only, the owner of database and tables, and the application's own. */
export async function ensureRoles(superuserUrl, { owner, app }) {
  await connected(`${superuserUrl}postgres`, async (client) => {
    for (const [role, secret] of [
      ["pale_cap_owner", owner],
      ["pale_cap_app", app],
    ]) {
      const found = await client.query("SELECT 1 FROM pg_roles WHERE rolname = $1", [role]);
      const verb = found.rowCount === 0 ? "CREATE" : "ALTER";
      await client.query(`${verb} ROLE ${role} LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE PASSWORD '${secret}'`);
    }
  });
}

/** The shop's database, owned by its owner with everything in it: what an older start made changes owner one by one. */
export async function ensureDatabase(superuserUrl, name = databaseName) {
  await connected(`${superuserUrl}postgres`, async (client) => {
    const found = await client.query("SELECT 1 FROM pg_database WHERE datname = $1", [name]);
    if (found.rowCount === 0) await client.query(`CREATE DATABASE "${name}" OWNER pale_cap_owner`);
    await client.query(`ALTER DATABASE "${name}" OWNER TO pale_cap_owner`);
    await client.query(`REVOKE CONNECT ON DATABASE "${name}" FROM PUBLIC`);
    await client.query(`GRANT CONNECT ON DATABASE "${name}" TO pale_cap_app`);
  });
  await connected(`${superuserUrl}${name}`, async (client) => {
    const strangers = await client.query(`
      SELECT CASE c.relkind WHEN 'S' THEN 'SEQUENCE' WHEN 'v' THEN 'VIEW' ELSE 'TABLE' END AS kind, c.relname AS name
      FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
      WHERE n.nspname = 'public' AND c.relkind IN ('r', 'p', 'S', 'v') AND c.relowner <> 'pale_cap_owner'::regrole
        AND NOT EXISTS (SELECT 1 FROM pg_depend d WHERE d.objid = c.oid AND c.relkind = 'S' AND d.deptype IN ('a', 'i'))
        AND NOT EXISTS (SELECT 1 FROM pg_depend e WHERE e.objid = c.oid AND e.deptype = 'e')`);
    for (const { kind, name: object } of strangers.rows) {
      await client.query(`ALTER ${kind} public."${object}" OWNER TO pale_cap_owner`);
    }
  });
}
