import { Button, CopyButton, NativeSelect } from "@mantine/core";
import { useBenchSupplyQuery, useChooseSupplyMutation } from "../../probe/instruments/instrumentApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import classes from "./instruments.module.css";

/** The practice supply that the simulated instruments probe: what its owner says, and what is printed on its parts. */
export function SupplyCard({ benchId }: { readonly benchId: string }) {
  const { data: supply, error } = useBenchSupplyQuery(benchId);
  const [choose, { error: refused, isLoading }] = useChooseSupplyMutation();
  return (
    <section className={classes.supply} aria-label="Supply on the simulated bench">
      <h2>On the simulated bench</h2>
      <ProblemNote problem={asProblem(error ?? refused)} />
      {supply && (
        <>
          <NativeSelect
            label="Practice supply"
            data={supply.choices.map(({ name, title }) => ({ value: name, label: title }))}
            value={supply.name}
            disabled={isLoading}
            onChange={(event) => void choose({ name: event.currentTarget.value, benchId })}
          />
          <p className={classes.complaint}>“{supply.complaint}”</p>
          <h3>Printed on its parts</h3>
          <p className={`${text.soft} ${classes.note}`}>
            Paste these lines in Inspect, Several lines, and the board is there.
          </p>
          <CopyButton value={supply.lines.join("\n")}>
            {({ copied, copy }) => (
              <Button size="xs" variant="default" onClick={copy}>
                {copied ? "Copied" : `Copy ${supply.lines.length} lines`}
              </Button>
            )}
          </CopyButton>
          <textarea className={classes.lines} aria-label="Parts as lines" readOnly value={supply.lines.join("\n")} />
        </>
      )}
    </section>
  );
}
