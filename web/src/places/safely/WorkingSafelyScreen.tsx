import { cautionChapters, cautions } from "@pale-cap/wording";
import { Caution } from "../../ui/Caution";
import text from "../../ui/text.module.css";
import classes from "./safely.module.css";

/** Every caution of the product in one place, in the order of the work. */
export function WorkingSafelyScreen() {
  return (
    <div className={`${text.page} ${classes.page}`}>
      <h1>Working safely</h1>
      <p className={classes.lead}>{cautions.standing}</p>
      {cautionChapters.map(([title, keys]) => (
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
