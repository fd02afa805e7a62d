import type { Net } from "@pale-cap/contract";
import { inrushNote, type Requirement, type Surroundings } from "@pale-cap/core";
import { ambientWords, esrOpensWords, inrushWords, oldOverRippleWords, rippleNeedWords } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import classes from "./choose.module.css";

/** What stands behind the limits, in sentences: each only where it says something that the figures do not. */
export function RequirementNotes(props: {
  readonly requirement: Requirement;
  readonly net: Net | null;
  readonly around: Surroundings;
}) {
  const { requirement: need, net, around } = props;
  const { detail } = useJob();
  const nextTo = detail.positions.find((one) => one.id === need.nextToId)?.designator;
  const isBulk = net?.section === "bulk";
  const notes = [
    rippleNeedWords(need),
    ambientWords(need.ambients),
    nextTo === undefined || need.diameterMaxMetres?.source !== "drawing"
      ? null
      : `What ends its diameter is ${nextTo} beside it, as the board is drawn.`,
    need.isOldOverRipple ? oldOverRippleWords : null,
    esrOpensWords(need.esrOpens),
    isBulk ? inrushWords(inrushNote(around, need.original.capacitanceFarads)) : null,
  ].filter((one) => one !== null);
  if (notes.length === 0) return null;
  return (
    <ul className={classes.notes}>
      {notes.map((note) => (
        <li key={note}>{note}</li>
      ))}
    </ul>
  );
}
