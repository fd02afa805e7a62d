import type { EntryProblem } from "@pale-cap/core";
import { entryProblemWords } from "@pale-cap/wording";
import type { ReactNode } from "react";
import text from "./text.module.css";

/** What was understood of a line that is typed, piece by piece, and what was not; before anything is typed, how it goes. */
export function Understood(props: {
  readonly line: string;
  readonly hint: ReactNode;
  readonly pieces: readonly string[];
  readonly problems: readonly EntryProblem[];
  readonly children?: ReactNode;
}) {
  return (
    <div className={text.understood} role="status" aria-label="Understood">
      {props.line.trim() === "" ? (
        <span className={text.softLine}>{props.hint}</span>
      ) : (
        <>
          {props.pieces.map((piece) => (
            <span key={piece} className={text.piece}>
              {piece}
            </span>
          ))}
          {props.problems.map((one) => (
            <span key={one.code + one.word} className={text.wrong}>
              {entryProblemWords(one)}
            </span>
          ))}
          {props.children}
        </>
      )}
    </div>
  );
}
