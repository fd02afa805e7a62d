import { lessonCodes } from "@pale-cap/core";
import { lessons } from "@pale-cap/wording";
import { Link } from "react-router";
import text from "../../ui/text.module.css";
import classes from "./practice.module.css";

/** Twelve short pages. */
export function LessonsTab() {
  return (
    <ol className={classes.lessons}>
      {lessonCodes.map((code) => (
        <li key={code}>
          <Link to={`/practice/lessons/${code}`}>{lessons[code].title}</Link>
          <p className={text.softLine}>{lessons[code].says[0]}</p>
        </li>
      ))}
    </ol>
  );
}
