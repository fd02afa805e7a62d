import { NativeSelect } from "@mantine/core";
import type { QualityPage } from "@pale-cap/contract";
import type { VerdictWord } from "@pale-cap/core";
import { findingWords, minutesWords, shareWords, verdictLabels } from "@pale-cap/wording";
import { useState } from "react";
import { useQualityQuery } from "../../job/casebookApi";
import { usePeopleQuery } from "../../job/peopleApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { ShareBand } from "../../ui/ShareBand";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./casebook.module.css";

const percent = (ratio: number) => `${Math.round(100 * ratio)} %`;
const label = (word: string) => verdictLabels[word as VerdictWord] ?? word;

/** How far what was told held: chances, overrules, tests, minutes. */
export function QualityTab() {
  const [person, setPerson] = useState("");
  const { data, error } = useQualityQuery(person || null);
  const { data: people = [] } = usePeopleQuery();
  return (
    <>
      <div className={classes.bar}>
        <NativeSelect
          label="Jobs of"
          value={person}
          data={[{ value: "", label: "the whole shop" }, ...people.map(({ id, name }) => ({ value: id, label: name }))]}
          onChange={(event) => setPerson(event.currentTarget.value)}
        />
      </div>
      <ProblemNote problem={asProblem(error)} />
      {data && (
        <div className={classes.kind}>
          <Held quality={data} />
          <div>
            <Overrules quality={data} />
            <Tests quality={data} />
            <Minutes quality={data} />
            <section className={classes.part} aria-label="Comebacks">
              <h3>Back with the same fault</h3>
              <p className={text.softLine}>
                Of the repaired: {shareWords(data.comebacks.count, data.comebacks.total, data.comebacks.share)}. Those
                that went out lately may still come.
              </p>
            </section>
          </div>
        </div>
      )}
    </>
  );
}

function Held({ quality: { calibration, bins } }: { readonly quality: QualityPage }) {
  return (
    <section className={classes.part} aria-label="Chances that were told">
      <h3>Chances that were told in circuit, and what the part then read by itself</h3>
      {!calibration ? (
        <p className={text.soft}>
          No part was read in circuit first and off the board afterwards: whether chances hold cannot be told.
        </p>
      ) : (
        <>
          <table className={`${text.table} ${text.ruled}`} aria-label="Reliability">
            <TableHead names={["Told", "Parts", "Had failed", ""]} />
            <tbody>
              {calibration.bins.map((bin, n) => (
                <tr key={bin.lowRatio}>
                  <td className={text.figure}>
                    {Math.round(100 * bin.lowRatio)}–{percent(bin.highRatio)}
                  </td>
                  <td className={text.figure}>{bin.count || ""}</td>
                  <td className={classes.share}>{binWords(bin, bins[n] ?? null)}</td>
                  <td>
                    <ShareBand share={bins[n] ?? null} isLoud={isOff(bin, bins[n] ?? null)} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className={text.softLine}>
            Had failed is by the part's own ESR or C off the board against the school's limits. Parts that were never
            taken off the board are not in it. Mean gap between told and shown: {percent(calibration.expectedError)}
            {calibration.skill !== null &&
              `; against always saying the mean, ${percent(Math.abs(calibration.skill))} ${calibration.skill >= 0 ? "better" : "worse"}`}
            .
          </p>
        </>
      )}
    </section>
  );
}

type Bin = NonNullable<QualityPage["calibration"]>["bins"][number];

const binWords = (bin: Bin, share: QualityPage["bins"][number]) =>
  bin.count === 0 ? "" : shareWords(Math.round(bin.count * (bin.trueRatio ?? 0)), bin.count, share);

/** What was told on the mean lies outside what was shown. */
const isOff = ({ meanProbability }: Bin, share: QualityPage["bins"][number]) =>
  share !== null && meanProbability !== null && (meanProbability < share.lowRatio || meanProbability > share.highRatio);

function Overrules({ quality: { overrules } }: { readonly quality: QualityPage }) {
  return (
    <section className={classes.part} aria-label="Overrules">
      <h3>Overrules</h3>
      {overrules.length === 0 ? (
        <p className={text.soft}>No verdict was overruled on a closed job.</p>
      ) : (
        <table className={`${text.table} ${text.ruled}`} aria-label="Overrules">
          <TableHead names={["Reckoned", "A person said", "Was right", "Was wrong", "Never shown"]} />
          <tbody>
            {overrules.map((one) => (
              <tr key={`${one.computed} ${one.said}`}>
                <td>{label(one.computed)}</td>
                <td>{label(one.said)}</td>
                <td className={text.figure}>{one.rightCount}</td>
                <td className={text.figure}>{one.wrongCount}</td>
                <td className={text.figure}>{one.openCount}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Tests({ quality: { tests, fewestCount } }: { readonly quality: QualityPage }) {
  return (
    <section className={classes.part} aria-label="Tests">
      <h3>What tests told of the cause that was shown in the end</h3>
      {tests.length === 0 ? (
        <p className={text.soft}>No test was done on {fewestCount} jobs whose cause was shown.</p>
      ) : (
        <table className={`${text.table} ${text.ruled}`} aria-label="Tests">
          <TableHead names={["Looked for", "Told, bits", "Jobs"]} />
          <tbody>
            {tests.map((one) => (
              <tr key={one.finding}>
                <td>{findingWords(one.finding)}</td>
                <td className={text.figure}>{one.meanBits.toFixed(1)}</td>
                <td className={text.figure}>{one.count}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Minutes({ quality: { minutes, minutesCount, fewestCount } }: { readonly quality: QualityPage }) {
  return (
    <section className={classes.part} aria-label="Minutes">
      <h3>Minutes</h3>
      <p className={minutes ? undefined : text.soft}>
        {minutes
          ? minutesWords(minutes)
          : `${minutesCount} closed job${minutesCount === 1 ? "" : "s"} had minutes quoted and told; ${fewestCount} are needed.`}
      </p>
    </section>
  );
}
