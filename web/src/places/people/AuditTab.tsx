import { Button, Checkbox, NativeSelect, TextInput } from "@mantine/core";
import { useDebouncedValue } from "@mantine/hooks";
import type { AuditLine } from "@pale-cap/contract";
import { routes } from "@pale-cap/contract";
import { auditActText, momentText, roleLabels } from "@pale-cap/wording";
import { useState } from "react";
import { Link } from "react-router";
import { usePeopleQuery } from "../../job/peopleApi";
import { useAuditQuery } from "../../job/sessionApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./people.module.css";

/** Who did what when: searched, page by page, and as a file. */
export function AuditTab() {
  const { data: people = [] } = usePeopleQuery();
  const [search, setSearch] = useState("");
  const [person, setPerson] = useState("");
  const [from, setFrom] = useState("");
  const [until, setUntil] = useState("");
  const [withFacts, setFacts] = useState(false);
  const [befores, setBefores] = useState<readonly string[]>([]);
  const [words] = useDebouncedValue(search, 250);
  const asked = new URLSearchParams({
    ...(words.trim() && { search: words.trim() }),
    ...(person && { person }),
    ...(from && { from }),
    ...(until && { until }),
    ...(withFacts && { facts: "1" }),
  });
  const paged = new URLSearchParams(asked);
  const before = befores.at(-1);
  if (before) paged.set("before", before);
  const { data, error, isFetching } = useAuditQuery(`?${paged}`, { refetchOnMountOrArgChange: true });
  const narrowed =
    <T,>(set: (value: T) => void) =>
    (value: T) => {
      set(value);
      setBefores([]);
    };
  return (
    <>
      <div className={classes.row}>
        <TextInput
          label="Search"
          placeholder="job number, act, name, bench"
          className={classes.search}
          value={search}
          onChange={(event) => narrowed(setSearch)(event.currentTarget.value)}
        />
        <NativeSelect
          label="Who"
          data={[{ value: "", label: "everybody" }, ...people.map((one) => ({ value: one.id, label: one.name }))]}
          value={person}
          onChange={(event) => narrowed(setPerson)(event.currentTarget.value)}
        />
        <TextInput
          label="From"
          type="date"
          value={from}
          onChange={(event) => narrowed(setFrom)(event.currentTarget.value)}
        />
        <TextInput
          label="Until"
          type="date"
          value={until}
          onChange={(event) => narrowed(setUntil)(event.currentTarget.value)}
        />
        <Checkbox
          label="readings and ticks too"
          checked={withFacts}
          onChange={(event) => narrowed(setFacts)(event.currentTarget.checked)}
        />
        <Button component="a" variant="default" href={`${routes.auditCsv}?${asked}`} download>
          As a CSV file
        </Button>
      </div>
      <ProblemNote problem={asProblem(error)} />
      <div className={classes.panel} aria-busy={isFetching}>
        <table className={`${text.table} ${text.ruled}`} aria-label="Who did what">
          <TableHead names={["When", "Who", "Where", "Did", "Job", "About"]} />
          <tbody>
            {data?.lines.map((line) => (
              <Line key={line.id} line={line} />
            ))}
          </tbody>
        </table>
        {data?.lines.length === 0 && <p className={text.softLine}>Nothing of this kind was done.</p>}
        <div className={classes.row}>
          {befores.length > 0 && (
            <Button variant="default" onClick={() => setBefores(befores.slice(0, -1))}>
              Newer
            </Button>
          )}
          {data?.nextBefore && (
            <Button variant="default" onClick={() => setBefores([...befores, data.nextBefore as string])}>
              Older
            </Button>
          )}
        </div>
      </div>
      <p className={text.soft}>Lines are only ever added: nothing in this program changes or removes one.</p>
    </>
  );
}

function Line({ line }: { readonly line: AuditLine }) {
  const who = line.name ?? (line.role === "everyone" ? "nobody signed in" : "the server");
  return (
    <tr>
      <td className={text.figure}>{momentText(line.at)}</td>
      <td>
        {who}
        {line.name && line.role && line.role !== "everyone" && (
          <span className={text.soft}> {roleLabels[line.role]}</span>
        )}
      </td>
      <td>{line.benchName}</td>
      <td>{auditActText(line.act)}</td>
      <td>
        {line.jobId && line.jobNumber !== null && (
          <Link to={`/jobs/${line.jobId}`} className={text.figure}>
            {String(line.jobNumber).padStart(4, "0")}
          </Link>
        )}
      </td>
      <td className={classes.about}>{aboutText(line)}</td>
    </tr>
  );
}

const isId = /^[0-9a-f]{8}-/;

/** What it was about, in words; ids say nothing to anybody. */
function aboutText({ subject, details }: AuditLine): string {
  const told = Object.entries(details)
    .filter(([, value]) => typeof value !== "object" && !isId.test(String(value)))
    .map(([name, value]) => `${name.replaceAll("_", " ")} ${value}`);
  return [subject && !isId.test(subject) ? subject : null, ...told].filter(Boolean).join(", ");
}
