import { Button } from "@mantine/core";
import { instrumentKinds } from "@pale-cap/contract";
import { useState } from "react";
import { useAppSelector } from "../../app/store/hooks";
import { useMay } from "../../job/useMay";
import { useInstrumentsQuery } from "../../probe/instruments/instrumentApi";
import { useInstrumentStream } from "../../probe/instruments/useInstrumentStream";
import { usePageBench } from "../../probe/instruments/usePageBench";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { BenchChoice } from "./BenchChoice";
import { InstrumentCard } from "./InstrumentCard";
import { InstrumentForm } from "./InstrumentForm";
import classes from "./instruments.module.css";
import { SupplyCard } from "./SupplyCard";

/** What stands on the bench: each instrument with what it says now, and the practice supply behind the simulated ones. */
export function InstrumentsScreen() {
  useInstrumentStream();
  const { data, error } = useInstrumentsQuery();
  const states = useAppSelector((state) => state.instruments.states);
  const isStreaming = useAppSelector((state) => state.instruments.isStreaming);
  const maySetUp = useMay("set_up_instruments");
  const [edited, setEdited] = useState<string | null>(null);
  const { bench } = usePageBench();
  const instruments = (data?.instruments ?? [])
    .filter((one) => bench === null || one.benchId === bench.id)
    .sort((a, b) => instrumentKinds.indexOf(a.kind) - instrumentKinds.indexOf(b.kind) || a.channel - b.channel);
  const isSimulated = instruments.some((one) => one.transport === "simulated" && one.isEnabled);
  return (
    <div className={`${text.page} ${classes.page}`}>
      <header className={classes.head}>
        <h1>Instruments</h1>
        <p>
          What they say now is only shown: a value becomes a reading when you log it in Measure.
          {!isStreaming && data && <b> The live stream is interrupted; it comes back by itself.</b>}
        </p>
        {maySetUp && <Button onClick={() => setEdited("new")}>Add an instrument</Button>}
      </header>
      <BenchChoice />
      <ProblemNote problem={asProblem(error)} />
      {edited === "new" && <InstrumentForm onDone={() => setEdited(null)} />}
      <div className={classes.columns} data-simulated={isSimulated || undefined}>
        {isSimulated && bench && <SupplyCard benchId={bench.id} />}
        <div className={classes.cards}>
          {instruments.map((one) =>
            edited === one.id ? (
              <InstrumentForm key={one.id} instrument={one} onDone={() => setEdited(null)} />
            ) : (
              <InstrumentCard key={one.id} instrument={one} state={states[one.id]} onEdit={() => setEdited(one.id)} />
            ),
          )}
          {data && instruments.length === 0 && (
            <p className={`${text.soft} ${classes.note}`}>
              No instrument is set up at this bench. Readings are typed; add one to see its values live.
            </p>
          )}
        </div>
      </div>
    </div>
  );
}
