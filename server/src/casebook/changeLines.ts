import { type ChangeLine, recordCode } from "@pale-cap/contract";
import {
  type FaultTally,
  faultKnowledge,
  faultTallyKinds,
  recordedKnowledge,
  type Topology,
  topologies,
} from "@pale-cap/core";
import type { StoredTally } from "../database/models/closedJobs";
import type { Scope } from "../database/scope";
import { loadRuleValues } from "../records/rules";

const mostLines = 400;
const noScopes = { topology: null, model: null };

/**
 * Everything that closed jobs move in the fault knowledge, by how supplies are built and by model, furthest first: what it was by
 * default, what it is here, of how many jobs, and whether the shop leaves it out. Defaults are those before a device's kind and
 * age are known.
 */
export async function changeLines(scope: Scope): Promise<readonly ChangeLine[]> {
  const rules = await loadRuleValues(scope);
  const leftOut = new Set(rules["record.leftOut"]);
  const fewestCount = rules["record.fewest"];
  const rows = await scope.sql<{
    kind: StoredTally["kind"];
    scope: string;
    subject: string;
    seen: number;
    total: number;
  }>(
    `SELECT kind, scope, subject, sum(seen_count * CASE WHEN is_foreign THEN $2::float8 ELSE 1 END)::float8 AS seen,
       sum(total_count * CASE WHEN is_foreign THEN $2::float8 ELSE 1 END)::float8 AS total
     FROM record_tallies WHERE realm = $1 AND kind = ANY($3::text[]) AND scope LIKE 'topology:%'
     GROUP BY kind, scope, subject HAVING sum(total_count) > 0 ORDER BY kind, scope, subject`,
    [scope.realm, rules["record.otherShopsWeight"], [...faultTallyKinds]],
  );
  const lines = topologies.flatMap((topology: Topology) => {
    const own = rows.filter((row) => row.scope === `topology:${topology}`);
    if (own.length === 0) return [];
    const faults = own.map(({ kind, subject, seen, total }): FaultTally => {
      const [fault = "", other = null] = subject.split(">");
      return { kind: kind as FaultTally["kind"], fault, other, of: "topology", count: seen, total };
    });
    const record = {
      fewestCount,
      defaultWeight: rules["record.defaultWeight"],
      ageBand: null,
      parts: [],
      faults,
      scopes: noScopes,
    };
    return recordedKnowledge(faultKnowledge(topology), record).changes.map((change): ChangeLine => {
      const subject = change.other === null ? change.fault : `${change.fault}>${change.other}`;
      const code = recordCode(change.kind, `topology:${topology}`, subject);
      return { ...change, code, scope: topology, isLeftOut: leftOut.has(code) };
    });
  });
  const moved = ({ defaultProbability: before, probability: after }: ChangeLine) =>
    Math.abs(Math.log(after / (1 - after)) - Math.log(before / (1 - before)));
  return lines
    .filter((one) => one.isLeftOut || Math.abs(one.probability - one.defaultProbability) >= 0.005)
    .sort((a, b) => moved(b) - moved(a))
    .slice(0, mostLines);
}
