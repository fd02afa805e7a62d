import { NativeSelect, SegmentedControl } from "@mantine/core";
import type { SeriesPage, SeriesQuery } from "@pale-cap/contract";
import { type SeriesLife, sectionFacts } from "@pale-cap/core";
import { againstWords, apartLabels, hoursText, lifeWords, selectionWords, shareWords } from "@pale-cap/wording";
import { Link, useSearchParams } from "react-router";
import { searchText, useSeriesListQuery, useSeriesQuery } from "../../job/casebookApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./casebook.module.css";
import { SurvivalChart } from "./SurvivalChart";

/** How long one series lives, where, and against another. */
export function SeriesScreen() {
  const [address, setAddress] = useSearchParams();
  const query: SeriesQuery = {
    ...{ series: address.get("series"), section: address.get("section") },
    ...{ warmth: address.get("warmth"), against: address.get("against") },
  };
  const put = (name: string, value: string | null) =>
    setAddress((before) => {
      const next = new URLSearchParams(before);
      if (value) next.set(name, value);
      else next.delete(name);
      return next;
    });
  const { data, error } = useSeriesQuery(query);
  const { data: all = [] } = useSeriesListQuery();
  if (!data) return <ProblemNote problem={asProblem(error)} />;
  const others = all.filter((one) => one.series !== data.series);
  return (
    <article aria-label={data.name}>
      <header className={classes.kindHead}>
        <h2>
          {data.name} {data.makers.length > 0 && <span className={text.softLine}>{data.makers.join(", ")}</span>}
        </h2>
        <p className={text.softLine}>{selectionWords}</p>
      </header>
      <div className={classes.bar}>
        <NativeSelect
          label="Where"
          value={query.section ?? ""}
          data={[
            { value: "", label: "everywhere" },
            ...data.sections.map((value) => ({ value, label: sectionFacts[value].label })),
          ]}
          onChange={(event) => put("section", event.currentTarget.value || null)}
        />
        <div>
          <div className={text.soft}>How warm</div>
          <SegmentedControl
            aria-label="How warm"
            value={query.warmth ?? ""}
            data={[
              { value: "", label: "any" },
              { value: "warmed", label: "beside heat" },
              { value: "free", label: "free" },
            ]}
            onChange={(value) => put("warmth", value || null)}
          />
        </div>
        <NativeSelect
          label="Against"
          value={query.against ?? ""}
          data={[{ value: "", label: "no other" }, ...others.map((one) => ({ value: one.series, label: one.name }))]}
          onChange={(event) => put("against", event.currentTarget.value || null)}
        />
      </div>
      <div className={classes.kind}>
        <section className={classes.part} aria-label="How long it lives">
          <h3>How long it lives</h3>
          <p>{lifeWords(data.life.life)}</p>
          {data.against && <p>{againstWords(data.name, data.against.name, data.against.shorterProbability)}</p>}
          <SurvivalChart
            lines={[
              { name: data.name, life: data.life },
              ...(data.against ? [{ name: data.against.name, life: data.against.life }] : []),
            ]}
          />
          <Told page={data} />
        </section>
        <div>
          <Figures page={data} />
          <Lots page={data} />
          <p className={text.softLine}>
            <Link to={`/casebook?${searchText({ series: data.series })}`}>The jobs behind it</Link>
          </p>
        </div>
      </div>
    </article>
  );
}

/** How the curves are meant, and what they are not. */
function Told({ page: { life, toldHoursCount } }: { readonly page: SeriesPage }) {
  const count = life.foundCount + life.fittedCount;
  return (
    <p className={text.softLine}>
      {count === 0
        ? "No part of it has an age yet."
        : toldHoursCount === count
          ? "Of all parts the hours a day were told. "
          : `${toldHoursCount} of ${count} parts had their hours a day told; the others are reckoned with 8 h. `}
      {life.foundCount > 0 &&
        "Found parts were looked at once: one found failed had failed some time before, a sound one counts for its whole age. "}
      {life.fittedCount > 0 &&
        "Parts fitted here are followed until the unit came back with that place bad; one that never came back is taken as working."}
    </p>
  );
}

function Figures({ page }: { readonly page: SeriesPage }) {
  const { life } = page;
  return (
    <section className={classes.part} aria-label="Counted">
      <h3>Counted</h3>
      <dl className={classes.figures}>
        <dt>Found on boards, had failed</dt>
        <dd>{shareWords(life.foundFailedCount, life.foundCount, life.share)}</dd>
        <dt>Fitted here, came back bad</dt>
        <dd>{life.fittedCount === 0 ? "none fitted" : `${life.fittedFailedCount} of ${life.fittedCount}`}</dd>
        <Weibull life={life} />
        {page.apart.map((one) => (
          <div key={`${one.what} ${one.lot}`} className={classes.apart}>
            <dt>
              Apart: {apartLabels[one.what]}
              {one.lot ? `, lot ${one.lot}` : ""}
            </dt>
            <dd>
              {one.failedCount} of {one.count} came back bad
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

function Weibull({ life: { life } }: { readonly life: SeriesLife }) {
  if (typeof life === "string") return null;
  return (
    <>
      <dt>Characteristic life, steepness</dt>
      <dd>
        {hoursText(life.etaHours)}, {Number(life.beta.toPrecision(2))}
      </dd>
    </>
  );
}

function Lots({ page: { lots } }: { readonly page: SeriesPage }) {
  if (lots.length === 0) return null;
  return (
    <section className={classes.part} aria-label="Lots">
      <h3>Lots that were fitted here</h3>
      <table className={`${text.table} ${text.ruled}`} aria-label="Lots">
        <TableHead names={["Lot", "Came back bad", ""]} />
        <tbody>
          {lots.map((lot) => (
            <tr key={lot.lot} data-loud={lot.isWorse || undefined}>
              <td className={text.figure}>{lot.lot}</td>
              <td>
                {lot.failedCount} of {lot.count}
              </td>
              <td>{lot.isWorse && <b>worse than its series, beyond chance</b>}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
