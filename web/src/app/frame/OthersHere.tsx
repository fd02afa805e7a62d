import type { Presence } from "@pale-cap/contract";
import { useWho } from "../../job/useMay";
import classes from "./frame.module.css";

/** Who else looks at this job now, and from where. */
export function OthersHere({ people }: { readonly people: readonly Presence[] }) {
  const own = useWho()?.personId;
  const others = people.filter((one) => one.personId !== own);
  if (others.length === 0) return null;
  const words = others.map((one) => (one.benchName ? `${one.name}, ${one.benchName}` : one.name)).join("; ");
  return (
    <span role="status" className={classes.others} title={words} aria-label={`Also on this job: ${words}`}>
      {others.map((one) => (
        <span key={one.personId} className={classes.other}>
          {initials(one.name)}
        </span>
      ))}
      <span className={classes.otherName}>
        {others[0]?.name}
        {others.length > 1 ? ` and ${others.length - 1} more` : ""}
      </span>
    </span>
  );
}

const initials = (name: string) =>
  name
    .split(/\s+/)
    .map((word) => word[0]?.toUpperCase() ?? "")
    .slice(0, 2)
    .join("");
