import { Button, MultiSelect, NumberInput, TextInput } from "@mantine/core";
import type { PracticeList } from "@pale-cap/contract";
import { useState } from "react";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { Allowed } from "../../job/Allowed";
import { usePeopleQuery } from "../../job/peopleApi";
import {
  useMakePracticeListMutation,
  usePracticeListQuery,
  usePracticePageQuery,
  useRemovePracticeListMutation,
} from "../../job/practiceApi";
import { useMay } from "../../job/useMay";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import classes from "./practice.module.css";
import { useBegin } from "./useBegin";

/** Sets of supplies that somebody has to pass, and who passed them. */
export function ListsTab() {
  const personId = useAppSelector((state) => state.workplace.personId);
  const { data, error } = usePracticePageQuery(personId);
  return (
    <>
      <ProblemNote problem={asProblem(error)} />
      <div className={classes.two}>
        <div>
          {data?.lists.length === 0 && (
            <p className={classes.panel}>
              No list yet. A list names supplies and the points at which each counts as passed; beside it stands who
              passed what.
            </p>
          )}
          {data?.lists.map((list) => (
            <OneList
              key={list.id}
              list={list}
              titleOf={(name) => data.offered?.find((one) => one.name === name)?.title ?? name}
            />
          ))}
        </div>
        <Allowed right="lead_practice">
          <NewList names={(data?.offered ?? []).map((one) => ({ value: one.name, label: one.title }))} />
        </Allowed>
      </div>
    </>
  );
}

function OneList({ list, titleOf }: { readonly list: PracticeList; readonly titleOf: (name: string) => string }) {
  const mayLead = useMay("lead_practice");
  const { data } = usePracticeListQuery(list.id, { skip: !mayLead });
  const { data: people = [] } = usePeopleQuery();
  const { begin, isBeginning, problem } = useBegin();
  const [remove, { error }] = useRemovePracticeListMutation();
  const nameOf = (id: string | null) => people.find((one) => one.id === id)?.name ?? "somebody";
  return (
    <section className={classes.panel} aria-label={list.name}>
      <h2>{list.name}</h2>
      <ProblemNote problem={problem ?? asProblem(error)} />
      <p className={text.softLine}>
        Each counts as passed from {list.passMark} points on, and never with a breach of safety.
      </p>
      <ul className={classes.plain}>
        {list.supplies.map((name) => (
          <li key={name}>
            {titleOf(name)}{" "}
            <Button
              size="compact-xs"
              variant="default"
              disabled={isBeginning}
              onClick={() => void begin(name, list.id)}
              aria-label={`Begin ${titleOf(name)} for ${list.name}`}
            >
              Begin
            </Button>
          </li>
        ))}
      </ul>
      {data && data.people.length > 0 && (
        <table className={`${text.table} ${text.ruled}`} aria-label={`Who passed ${list.name}`}>
          <TableHead names={["Who", "Passed", "Tried", ""]} />
          <tbody>
            {data.people.map((one) => (
              <tr key={one.personId ?? ""}>
                <td>{nameOf(one.personId)}</td>
                <td className={text.figure}>
                  {one.passed.length} of {list.supplies.length}
                </td>
                <td className={text.figure}>{one.tried.length}</td>
                <td>{one.isPassed ? <b>passed</b> : <span className={text.soft}>not yet</span>}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {mayLead && (
        <Button size="compact-xs" variant="subtle" onClick={() => void remove(list.id)}>
          Take this list away
        </Button>
      )}
    </section>
  );
}

function NewList({ names }: { readonly names: readonly { readonly value: string; readonly label: string }[] }) {
  const personId = useAppSelector((state) => state.workplace.personId);
  const [name, setName] = useDraft("practice list name", "");
  const [passMark, setPassMark] = useState<number | string>(70);
  const [supplies, setSupplies] = useState<string[]>([]);
  const [make, { error, isLoading }] = useMakePracticeListMutation();
  const isReady = name.trim() !== "" && supplies.length > 0 && passMark !== "";
  return (
    <form
      className={classes.panel}
      onSubmit={async (event) => {
        event.preventDefault();
        if (!isReady) return;
        const answer = await make({ id: newId(), name: name.trim(), passMark: Number(passMark), supplies, personId });
        if ("error" in answer) return;
        setName("");
        setSupplies([]);
      }}
    >
      <h2>A new list</h2>
      <ProblemNote problem={asProblem(error)} />
      <TextInput label="Name" value={name} maxLength={60} onChange={(event) => setName(event.currentTarget.value)} />
      <MultiSelect label="Supplies" data={[...names]} value={supplies} onChange={setSupplies} searchable />
      <NumberInput
        label="Passed from"
        suffix=" points"
        min={0}
        max={100}
        hideControls
        value={passMark}
        onChange={setPassMark}
      />
      <Button type="submit" loading={isLoading} disabled={!isReady}>
        Make the list
      </Button>
    </form>
  );
}
