import { Button, Checkbox, SegmentedControl, TextInput } from "@mantine/core";
import { useState } from "react";
import { newId } from "../../api/newId";
import { useAppDispatch, useAppSelector } from "../../app/store/hooks";
import { useChooseBenchMutation } from "../../job/sessionApi";
import { benchChosen } from "../../job/workplaceSlice";
import { useAddWorkbenchMutation } from "../../probe/instruments/instrumentApi";
import { usePageBench } from "../../probe/instruments/usePageBench";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { useDraft } from "../../ui/useDraft";
import classes from "./instruments.module.css";

/** At which bench this page stands, and another one. What is measured in a job comes from the instruments of this bench. */
export function BenchChoice() {
  const { bench, benches } = usePageBench();
  const dispatch = useAppDispatch();
  const [add, { error, isLoading }] = useAddWorkbenchMutation();
  const isShop = useAppSelector((state) => state.workplace.isShop);
  const [atBench] = useChooseBenchMutation();
  // In a shop the server knows at which bench somebody works: instruments obey it.
  const choose = (benchId: string) => {
    if (isShop) void atBench({ benchId });
    else dispatch(benchChosen(benchId));
  };
  const [isAdding, setAdding] = useState(false);
  const [name, setName, dropName] = useDraft("new bench", "");
  const [hasSimulated, setSimulated] = useState(true);
  async function save() {
    const made = await add({ id: newId(), name, hasSimulated });
    if (!made.data) return;
    choose(made.data.id);
    setAdding(false);
    dropName(name);
  }
  return (
    <div className={classes.benches}>
      {benches.length > 1 && (
        <SegmentedControl
          aria-label="This page stands at"
          data={benches.map((one) => ({ value: one.id, label: one.name }))}
          value={bench?.id ?? ""}
          onChange={choose}
        />
      )}
      {benches.length === 1 && <b>{bench?.name}</b>}
      {isAdding ? (
        <form
          className={classes.row}
          onSubmit={(event) => {
            event.preventDefault();
            void save();
          }}
        >
          <TextInput
            aria-label="Name of the bench"
            size="sm"
            placeholder="By the window"
            maxLength={40}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <Checkbox
            label="with simulated instruments"
            checked={hasSimulated}
            onChange={(event) => setSimulated(event.currentTarget.checked)}
          />
          <Button type="submit" size="sm" disabled={name.trim() === ""} loading={isLoading}>
            Set it up
          </Button>
          <Button size="sm" variant="subtle" color="gray" onClick={() => setAdding(false)}>
            Leave it
          </Button>
        </form>
      ) : (
        <Button size="compact-sm" variant="subtle" onClick={() => setAdding(true)}>
          Another bench
        </Button>
      )}
      <ProblemNote problem={asProblem(error)} />
    </div>
  );
}
