import { Button, NumberInput, SegmentedControl } from "@mantine/core";
import { madeSupplyName, type OfferedPractice, type PracticeLine } from "@pale-cap/contract";
import { difficultyLabels, logTime, practiceNote } from "@pale-cap/wording";
import { useState } from "react";
import { Link } from "react-router";
import { useAppSelector } from "../../app/store/hooks";
import { usePracticePageQuery } from "../../job/practiceApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./practice.module.css";
import { useBegin } from "./useBegin";

const hardness = [1, 2, 3].map((value) => ({ value: String(value), label: difficultyLabels[value] ?? "" }));
/** A number by chance for whoever has none in mind. */
const anyNumber = () => 1 + Math.floor(Math.random() * 9998);

/** The supplies that there are, with what one did of them; and endless others by number. */
export function SuppliesTab() {
  const personId = useAppSelector((state) => state.workplace.personId);
  const { data, error } = usePracticePageQuery(personId, { refetchOnMountOrArgChange: true });
  const { begin, beginning, isBeginning, problem } = useBegin();
  const open = data?.lines.filter((one) => one.endedAt === null) ?? [];
  const next = data?.offered?.find((one) => one.name === data.next);
  return (
    <>
      <p className={text.softLine}>{practiceNote}</p>
      <ProblemNote problem={asProblem(error) ?? problem} />
      {data?.offered === null && (
        <p className={classes.panel}>
          The simulated bench does not answer: it starts with Pale Cap. Until it does, no supply can be laid there.
        </p>
      )}
      {open.length > 0 && (
        <section className={classes.panel} aria-label="Open">
          <h2>Open</h2>
          <ul className={classes.plain}>
            {open.map((one) => (
              <li key={one.jobId}>
                <Link to={`/jobs/${one.jobId}/intake`}>{one.title}</Link>{" "}
                <span className={text.soft}>begun {logTime(one.begunAt)}</span>{" "}
                <Link className={text.soft} to={`/practice/${one.jobId}`}>
                  my last word
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      {next && (
        <section className={classes.next} aria-label="Next">
          <div>
            <h2>{next.title}</h2>
            <p className={text.softLine}>
              {difficultyLabels[next.difficulty]}. It would tell most about where you stand.
            </p>
          </div>
          <Button loading={beginning === next.name} disabled={isBeginning} onClick={() => void begin(next.name)}>
            Lay it on a bench
          </Button>
        </section>
      )}
      <div className={classes.two}>
        <section className={classes.panel} aria-label="Supplies">
          <h2>Supplies</h2>
          <table className={`${text.table} ${text.ruled}`}>
            <TableHead names={["Supply", "It", "Best so far", ""]} />
            <tbody>
              {data?.offered?.map((one) => (
                <Supply
                  key={one.name}
                  supply={one}
                  lines={data.lines.filter((line) => line.supply === one.name)}
                  isBeginning={beginning === one.name}
                  isBusy={isBeginning}
                  onBegin={() => void begin(one.name)}
                />
              ))}
            </tbody>
          </table>
        </section>
        <Endless begin={begin} isBusy={isBeginning} />
      </div>
    </>
  );
}

function Supply(props: {
  readonly supply: OfferedPractice;
  readonly lines: readonly PracticeLine[];
  readonly isBeginning: boolean;
  readonly isBusy: boolean;
  readonly onBegin: () => void;
}) {
  const { supply, lines } = props;
  const ended = lines.filter((one) => one.total !== null).sort((a, b) => (b.total ?? 0) - (a.total ?? 0));
  const [best] = ended;
  return (
    <tr>
      <td>{supply.title}</td>
      <td className={text.soft}>{difficultyLabels[supply.difficulty]}</td>
      <td>
        {best ? (
          <Link to={`/practice/${best.jobId}`}>
            <span className={text.figure}>{Math.round(best.total ?? 0)}</span>
            {best.isPassed ? ", passed" : best.isFatal ? ", not passed: safety" : ", not passed"}
          </Link>
        ) : (
          <span className={text.soft}>not yet</span>
        )}
      </td>
      <td>
        <Button
          size="compact-sm"
          variant="default"
          loading={props.isBeginning}
          disabled={props.isBusy}
          onClick={props.onBegin}
          aria-label={`Begin: ${supply.title}`}
        >
          Begin
        </Button>
      </td>
    </tr>
  );
}

/** Made by chance, the same for the same number. */
function Endless({ begin, isBusy }: { readonly begin: (supply: string) => Promise<void>; readonly isBusy: boolean }) {
  const [difficulty, setDifficulty] = useState("2");
  const [seed, setSeed] = useState<number | string>(anyNumber);
  const isFit = Number.isInteger(Number(seed)) && Number(seed) >= 1 && Number(seed) <= 9_999_999;
  return (
    <form
      className={classes.panel}
      onSubmit={(event) => {
        event.preventDefault();
        if (isFit) void begin(madeSupplyName(Number(difficulty), Number(seed)));
      }}
    >
      <h2>Any number of others</h2>
      <p className={text.softLine}>
        Made by chance from the fault knowledge: the same number is the same supply, for whoever takes it. One that no
        test on its bench could decide is thrown away, so making it may take some seconds.
      </p>
      <SegmentedControl aria-label="How hard" data={hardness} value={difficulty} onChange={setDifficulty} />
      <NumberInput
        label="Number"
        hideControls
        min={1}
        max={9_999_999}
        allowDecimal={false}
        value={seed}
        onChange={setSeed}
        error={isFit ? undefined : "a whole number up to 9 999 999"}
      />
      <div className={classes.row}>
        <Button type="submit" loading={isBusy} disabled={!isFit}>
          Make it
        </Button>
        <Button variant="default" onClick={() => setSeed(anyNumber())}>
          Another number
        </Button>
      </div>
    </form>
  );
}
