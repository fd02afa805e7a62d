import { Caution } from "../../ui/Caution";
import { cautions } from "../../wording/cautions";
import classes from "./safely.module.css";

const chapters: readonly (readonly [title: string, keys: readonly (keyof typeof cautions)[]])[] = [
  ["Before a hand goes in", ["storedCharge", "shortWithTool", "chargeUnknown"]],
  ["Before a meter touches a part", ["ohmsOnCharge"]],
  ["On a live primary", ["livePrimary"]],
  ["After the rework", ["polarity", "firstPower", "underLoad"]],
];

/** Every caution of the product in one place, in the order of the work. */
export function WorkingSafelyScreen() {
  return (
    <div className={classes.page}>
      <h1>Working safely</h1>
      <p className={classes.lead}>{cautions.standing}</p>
      {chapters.map(([title, keys]) => (
        <section key={title}>
          <h2>{title}</h2>
          {keys.map((key) => (
            <Caution key={key}>{cautions[key]}</Caution>
          ))}
        </section>
      ))}
    </div>
  );
}
