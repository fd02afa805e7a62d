import { Button, TextInput } from "@mantine/core";
import { foundPart, type Section } from "@pale-cap/core";
import { useState } from "react";
import { newId } from "../../api/newId";
import { useJob } from "../../job/JobContext";
import { useAddEnergyStoreMutation } from "../../job/jobApi";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import { useInvalidFields } from "../../ui/useInvalidFields";
import classes from "./makeSafe.module.css";

const storeSections: readonly Section[] = ["bulk", "pfc"];

interface Draft {
  readonly id: string;
  readonly name: string;
  readonly positionId: string | null;
  readonly capacitanceFarads: number | null;
  readonly expectedVolts: number | null;
}

/** A bulk behind a bridge charges to the crest of the mains. */
const emptyDraft = (mainsVoltsRms: number): Draft => ({
  id: newId(),
  name: "Bulk",
  positionId: null,
  capacitanceFarads: null,
  expectedVolts: Math.round(Math.SQRT2 * mainsVoltsRms),
});

/** Names an energy store: what it holds and the voltage to expect. Bulk parts on the board are offered. */
export function StoreForm() {
  const { detail, houseRules } = useJob();
  const fresh = () => emptyDraft(houseRules["mains.voltsRms"]);
  const [add, { error, isLoading }] = useAddEnergyStoreMutation();
  const [draft, setDraft] = useState(fresh);
  const [invalid, validity] = useInvalidFields();
  const isValid = invalid.size === 0;
  const known = detail.energyStores.map((store) => store.positionId);
  const offers = detail.positions.filter((position) => {
    const net = detail.nets.find((one) => one.id === position.netId);
    return (
      net && position.kind === "electrolytic" && storeSections.includes(net.section) && !known.includes(position.id)
    );
  });
  const set = (more: Partial<Draft>) => setDraft((now) => ({ ...now, ...more }));

  async function submit() {
    const answer = await add({ jobId: detail.job.id, body: { ...draft, drainOhms: null } });
    if (!answer.error) setDraft(fresh());
  }

  return (
    <Part title={detail.energyStores.length === 0 ? "What holds charge?" : "Another store"}>
      {offers.length > 0 && (
        <div className={classes.offers}>
          {offers.map((position) => {
            const net = detail.nets.find((one) => one.id === position.netId);
            const part = foundPart(detail.fittedParts, position.id);
            return (
              <Button
                key={position.id}
                size="xs"
                onClick={() =>
                  set({
                    name: `Bulk ${position.designator}`,
                    positionId: position.id,
                    capacitanceFarads: part?.capacitanceFarads ?? null,
                    expectedVolts: net?.nominalVolts ?? draft.expectedVolts,
                  })
                }
              >
                {position.designator} from the board
              </Button>
            );
          })}
        </div>
      )}
      <form
        className={classes.row}
        onSubmit={(event) => {
          event.preventDefault();
          if (isValid) void submit();
        }}
      >
        <TextInput label="Name" value={draft.name} onChange={(event) => set({ name: event.currentTarget.value })} />
        <QuantityInput
          label="Capacitance"
          unit="F"
          defaultPrefix="u"
          limits={[1e-9, 0.1]}
          value={draft.capacitanceFarads}
          onChange={(capacitanceFarads) => set({ capacitanceFarads })}
          onValidity={validity("farads")}
        />
        <QuantityInput
          label="Expected voltage"
          unit="V"
          limits={[1, 1000]}
          value={draft.expectedVolts}
          onChange={(expectedVolts) => set({ expectedVolts })}
          onValidity={validity("volts")}
        />
        <Button type="submit" loading={isLoading} disabled={!isValid || draft.name.trim() === ""}>
          Add store
        </Button>
      </form>
      <ProblemNote problem={asProblem(error)} />
    </Part>
  );
}
