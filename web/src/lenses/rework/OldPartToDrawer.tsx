import type { FittedPartRow, Position } from "@pale-cap/contract";
import { lastActOf, standingReadings } from "@pale-cap/core";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useAddStockItemMutation, useLogStockActMutation } from "../../job/catalogueApi";
import { useJob } from "../../job/JobContext";
import { useLogAct } from "../../job/useLogAct";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import { WordLine } from "../../ui/WordLine";

/** An old part that is kept goes into a drawer as salvaged, with what it read off the board. */
export function OldPartToDrawer({ position, found }: { readonly position: Position; readonly found: FittedPartRow }) {
  const { detail, facts } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [drawer, setDrawer, dropDrawer] = useDraft(`${detail.job.id} drawer ${position.id}`, "");
  const [add, added] = useAddStockItemMutation();
  const [log, logged] = useLogStockActMutation();
  const [act, { problem }] = useLogAct();
  const kept = lastActOf(facts.acts, "old_part_to", position.id)?.note ?? null;
  if (kept !== null) return <span className={text.soft}>Lies in drawer {kept}, as salvaged.</span>;
  const { capacitanceFarads, ratedVolts } = found;
  if (capacitanceFarads === null || ratedVolts === null) {
    return (
      <span className={text.soft}>Without value and volts it goes into no drawer: scrap it, or keep it apart.</span>
    );
  }
  const put = async (name: string) => {
    const itemId = newId();
    const { temperatureClassCelsius, capacitorClass, diameterMetres, heightMetres, series } = found;
    const marking = {
      ...{
        capacitanceFarads,
        ratedVolts,
        temperatureClassCelsius,
        capacitorClass,
        diameterMetres,
        heightMetres,
        series,
      },
      pitchMetres: position.pitchMetres,
    };
    const note = `out of job ${String(detail.job.number).padStart(4, "0")} ${position.designator}`;
    const untold = { lot: null, dateCode: null, receivedOn: null, usedHours: null };
    const values = { ...untold, drawer: name, origin: "salvaged" as const, note };
    const stored = await add({ id: itemId, cataloguePartId: null, marking, values, count: 1, personId });
    if (stored.error) return;
    const own = standingReadings(facts.readings).filter(
      (one) => one.fittedPartId === found.id && one.circuitState === "out" && one.value !== null,
    );
    for (const [kind, quantity] of [
      ["esr_read", "esr"],
      ["capacitance_read", "capacitance"],
    ] as const) {
      const last = own.filter((one) => one.quantity === quantity).at(-1);
      if (!last) continue;
      const nothing = { volts: null, seconds: null, riseKelvin: null, note: null, personId };
      const body = { ...nothing, id: newId(), kind, value: last.value, frequencyHertz: last.frequencyHertz };
      await log({ itemId, body });
    }
    if (await act({ kind: "old_part_to", subjectId: position.id, word: "drawer", note: name })) dropDrawer(drawer);
  };
  return (
    <>
      <WordLine
        label={`${position.designator}: into which drawer`}
        placeholder="which drawer"
        maxLength={24}
        value={drawer}
        onChange={setDrawer}
        button="Put it in"
        onTake={(name) => void put(name)}
      />
      <ProblemNote problem={asProblem(added.error ?? logged.error) ?? problem} />
    </>
  );
}
