import { Button, Radio, Slider } from "@mantine/core";
import { type LessonCode, lessonCodes, lessonModels } from "@pale-cap/core";
import { type Lesson, lessons } from "@pale-cap/wording";
import { useMemo, useState } from "react";
import { Link, useParams } from "react-router";
import { CurveChart } from "../../drawing/CurveChart";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import classes from "./practice.module.css";
import { useBegin } from "./useBegin";

/** One lesson: a little to read, a model to turn, a question, and the supply that goes with it. */
export function LessonScreen() {
  const { lesson: code = "" } = useParams();
  const index = (lessonCodes as readonly string[]).indexOf(code);
  if (index < 0) {
    return (
      <p className={classes.panel}>
        There is no such lesson. <Link to="/practice/lessons">All lessons</Link>
      </p>
    );
  }
  const known = lessonCodes[index] as LessonCode;
  return <OneLesson key={known} code={known} lesson={lessons[known]} next={lessonCodes[index + 1]} />;
}

function OneLesson({
  code,
  lesson,
  next,
}: {
  readonly code: LessonCode;
  readonly lesson: Lesson;
  readonly next: LessonCode | undefined;
}) {
  const { begin, isBeginning, problem } = useBegin();
  return (
    <article className={classes.lesson}>
      <div className={classes.panel}>
        <h2>{lesson.title}</h2>
        {lesson.says.map((one) => (
          <p key={one}>{one}</p>
        ))}
        <Question lesson={lesson} />
      </div>
      <div className={classes.panel}>
        <Model code={code} lesson={lesson} />
      </div>
      <footer className={classes.row}>
        <Button loading={isBeginning} onClick={() => void begin(lesson.supply)}>
          Try it on a supply
        </Button>
        {next && <Link to={`/practice/lessons/${next}`}>Next: {lessons[next].title}</Link>}
        <Link to="/practice/lessons">All lessons</Link>
        <ProblemNote problem={problem} />
      </footer>
    </article>
  );
}

/** A few knobs, and what core makes of them at once. */
function Model({ code, lesson }: { readonly code: LessonCode; readonly lesson: Lesson }) {
  const { knobs, view } = lessonModels[code];
  const [values, setValues] = useState<Readonly<Record<string, number>>>(() =>
    Object.fromEntries(knobs.map((one) => [one.key, one.start])),
  );
  const { lines, limits, figures } = useMemo(() => view(values), [view, values]);
  return (
    <section aria-label="Model">
      {knobs.map((knob) => {
        const words = lesson.knobs[knob.key];
        return (
          <div key={knob.key} className={classes.knob}>
            <span>
              {words?.label}: <b className={text.figure}>{rounded(values[knob.key] ?? 0)}</b> {words?.unit}
            </span>
            <Slider
              thumbLabel={words?.label ?? knob.key}
              label={null}
              min={knob.least}
              max={knob.most}
              step={knob.step}
              value={values[knob.key] ?? knob.start}
              onChange={(value) => setValues({ ...values, [knob.key]: value })}
            />
          </div>
        );
      })}
      <dl className={classes.figures}>
        {figures.map(({ code: name, value }) => {
          const words = lesson.figures[name];
          return (
            <div key={name}>
              <dt>{words?.label}</dt>
              <dd>
                <span className={text.figure}>
                  {Number.isFinite(value) ? value.toFixed(words?.digits ?? 1) : "never"}
                </span>{" "}
                {Number.isFinite(value) && words?.unit}
              </dd>
            </div>
          );
        })}
      </dl>
      <CurveChart
        label={`${lesson.y.name}, by ${lesson.x.name}${lesson.x.unit ? `, ${lesson.x.unit}` : ""}`}
        x={lesson.x}
        y={lesson.y}
        lines={lines.map((line) => ({ name: lesson.lines[line.code] ?? line.code, points: line.points }))}
        limits={limits}
        isDense
        isToTheEdges
        isFromNought
      />
    </section>
  );
}

const rounded = (value: number) => String(Number(value.toPrecision(3)));

function Question({ lesson }: { readonly lesson: Lesson }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const index = chosen === null ? null : Number(chosen);
  const answer = index === null ? undefined : lesson.answers[index];
  return (
    <section className={classes.question} aria-label="Question">
      <Radio.Group label={lesson.question} value={chosen} onChange={setChosen}>
        {lesson.answers.map((one, n) => (
          <Radio key={one.text} value={String(n)} label={one.text} />
        ))}
      </Radio.Group>
      <p role="status" data-right={index === lesson.right || undefined}>
        {answer?.because}
      </p>
    </section>
  );
}
