import { type KindPage, type KindPlace, type KindQuery, routes } from "@pale-cap/contract";
import { sectionFacts } from "@pale-cap/core";
import {
  damageLabels,
  deviceName,
  faultName,
  findingWords,
  fittedWords,
  moneyText,
  outcomeLabels,
  partKindLabels,
  selectionWords,
  shareWords,
  teardownLabels,
} from "@pale-cap/wording";
import { Link, useSearchParams } from "react-router";
import { kindAddress, searchText, useKindQuery } from "../../job/casebookApi";
import { useHouseRulesQuery } from "../../job/houseRulesApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { ShareBand } from "../../ui/ShareBand";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./casebook.module.css";
import { KindBoard } from "./KindBoard";

/** One model or board type: what fails in it, what it takes, how it opens, how it is run on the bench. */
export function KindScreen() {
  const [address] = useSearchParams();
  const query: KindQuery = {
    ...{ maker: address.get("maker"), model: address.get("model"), boardTypeId: address.get("type") },
  };
  const { data, error } = useKindQuery(query);
  return (
    <>
      <ProblemNote problem={asProblem(error)} />
      {data && <Kind kind={data} query={query} />}
    </>
  );
}

function Kind({ kind, query }: { readonly kind: KindPage; readonly query: KindQuery }) {
  const { data: rules } = useHouseRulesQuery();
  const currency = rules?.["shop.currency"] ?? "EUR";
  const isType = query.boardTypeId !== null;
  const name = isType ? `Board ${kind.boardTypeName ?? "type"}` : deviceName({ deviceKind: "other", ...notNull(kind) });
  return (
    <article aria-label={name}>
      <header className={classes.kindHead}>
        <h2>{name}</h2>
        <p className={text.softLine}>
          {seenWords(kind)} {kind.seenCount > 0 && selectionWords}
        </p>
      </header>
      {kind.seenCount === 0 ? (
        <p className={text.soft}>
          None of this kind was closed here yet. The first one fills this page: what had failed, what it took, how it
          opens.
        </p>
      ) : (
        <div className={classes.kind}>
          <div>
            <KindBoard kind={kind} />
            <Places kind={kind} />
            <Order kind={kind} />
          </div>
          <div>
            <Wrong kind={kind} query={query} />
            <Took kind={kind} currency={currency} />
            <Opening kind={kind} />
            <Outside kind={kind} />
            <Photos kind={kind} />
          </div>
        </div>
      )}
      {!isType && kind.boardTypeId !== null && (
        <p className={text.softLine}>
          Its board:{" "}
          <Link to={kindAddress({ maker: null, model: null, boardTypeId: kind.boardTypeId })}>
            {kind.boardTypeName}
          </Link>
        </p>
      )}
    </article>
  );
}

const notNull = ({ deviceMaker, deviceModel, deviceKind }: KindPage) => ({
  ...{ deviceMaker, deviceModel },
  ...(deviceKind === null ? {} : { deviceKind }),
});

function seenWords({ seenCount, openCount, foreignCount, outcomes }: KindPage): string {
  const ends = Object.entries(outcomes).map(
    ([outcome, count]) =>
      `${count} ${outcome === "unknown" ? "not told" : (outcomeLabels as Record<string, string>)[outcome]}`,
  );
  return [
    `${seenCount} closed here${ends.length > 0 ? `: ${ends.join(", ")}` : ""}.`,
    openCount > 0 && `${openCount} on the bench now.`,
    foreignCount > 0 && `${foreignCount} of other shops, in no count here.`,
  ]
    .filter(Boolean)
    .join(" ");
}

function Places({ kind }: { readonly kind: KindPage }) {
  const shown = kind.places.filter((one) => one.seenCount > 0);
  const loud = shown.filter((one) => one.standsOut);
  return (
    <section className={classes.part} aria-label="What had failed">
      <h3>What had failed, by place</h3>
      {loud.length > 0 && (
        <p className={text.softLine}>
          More often than its like in other models, beyond chance: {loud.map((one) => one.place).join(", ")}.
        </p>
      )}
      <table className={`${text.table} ${text.ruled}`} aria-label="Places">
        <TableHead names={["Place", "Had failed", "", "Went in most"]} />
        <tbody>
          {shown.map((place) => (
            <tr key={place.place} data-loud={place.standsOut || undefined}>
              <td>
                <b className={text.figure}>{place.place}</b>
                <div className={classes.note}>{whatOf(place)}</div>
              </td>
              <td className={classes.share}>{shareWords(place.failedCount, place.seenCount, place.share)}</td>
              <td>
                <ShareBand share={place.share} isLoud={place.standsOut} />
              </td>
              <td>
                {place.fittedLabel}
                {place.fittedCount > 0 && (
                  <div className={classes.note}>{fittedWords(place.fittedCount, place.fittedReturnedCount)}</div>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function whatOf({ partKind, section }: KindPlace): string {
  if (partKind !== "electrolytic") return partKindLabels[partKind];
  return section ? sectionFacts[section].label : "capacitor";
}

/** From here a place is worth having its part before the next one comes. */
const worthHavingFrom = 0.25;

function Order({ kind }: { readonly kind: KindPage }) {
  const wanted = kind.places.filter((one) => (one.share?.meanRatio ?? 0) >= worthHavingFrom && one.fittedLabel);
  if (wanted.length === 0) return null;
  return (
    <section className={classes.part} aria-label="To have before the next one comes">
      <h3>To have before the next one comes</h3>
      <table className={`${text.table} ${text.ruled}`} aria-label="To have">
        <TableHead names={["Place", "Part", "In drawers"]} />
        <tbody>
          {wanted.map((one) => (
            <tr key={one.place} data-short={one.inDrawers === 0 || undefined}>
              <td className={text.figure}>{one.place}</td>
              <td>{one.fittedLabel}</td>
              <td>{one.inDrawers === null ? "not of the catalogue" : one.inDrawers === 0 ? "none" : one.inDrawers}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={text.softLine}>
        <Link to="/parts/orders">To the orders</Link>
      </p>
    </section>
  );
}

function Wrong({ kind, query }: { readonly kind: KindPage; readonly query: KindQuery }) {
  const { causes, symptoms, shownCount, seenCount } = kind;
  const model =
    kind.deviceModel && query.boardTypeId === null
      ? `${kind.deviceMaker ?? ""}|${kind.deviceModel}`.toLowerCase()
      : null;
  const search = (more: Readonly<Record<string, string>>) =>
    `/casebook?${searchText({ model, type: query.boardTypeId, ...more })}`;
  return (
    <section className={classes.part} aria-label="What was wrong">
      <h3>What was wrong</h3>
      <p className={text.softLine}>
        {shownCount} of {seenCount} showed their cause by a test of its own.
      </p>
      <ul className={classes.lines}>
        {causes.map((cause) => (
          <li key={cause.fault}>
            <Link to={search({ cause: cause.fault })}>{faultName(cause.fault)}</Link>
            <div className={classes.note}>{shareWords(cause.count, cause.total, cause.share)}</div>
          </li>
        ))}
      </ul>
      {symptoms.length > 0 && (
        <>
          <h4>Told by</h4>
          <ul className={classes.lines}>
            {symptoms.map(({ symptom, count, cause, causeCount }) => (
              <li key={symptom}>
                <Link to={search({ symptom })}>{findingWords(symptom)}</Link>, {count}
                {cause && (
                  <div className={classes.note}>
                    {causeCount} of them: {faultName(cause)}
                  </div>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function Took({ kind, currency }: { readonly kind: KindPage; readonly currency: string }) {
  const { medianMinutes, minutesCount, medianPartsMinor, partsCount, comebacks, repairedCount, used } = kind;
  return (
    <section className={classes.part} aria-label="What it took">
      <h3>What it took</h3>
      <dl className={classes.figures}>
        <dt>Minutes</dt>
        <dd>
          {medianMinutes === null ? "not told" : `${Math.round(medianMinutes)} min, half of ${minutesCount} took less`}
        </dd>
        <dt>Parts</dt>
        <dd>
          {medianPartsMinor === null
            ? "not told"
            : `${moneyText(Math.round(medianPartsMinor), currency)}, half of ${partsCount} took less`}
        </dd>
        <dt>Back with the same fault</dt>
        <dd>
          {repairedCount === 0
            ? "none was closed as repaired"
            : comebacks.map(({ days, count, total, share }) => (
                <div key={days}>
                  within {days} days: {total === 0 ? "none out so long" : shareWords(count, total, share)}
                </div>
              ))}
        </dd>
        {used.length > 0 && (
          <>
            <dt>Parts used</dt>
            <dd>
              {used.map(({ label, count }) => (
                <div key={label}>
                  {count} × {label}
                </div>
              ))}
            </dd>
          </>
        )}
      </dl>
    </section>
  );
}

function Opening({ kind: { opening, damage } }: { readonly kind: KindPage }) {
  if (!opening && damage.length === 0) return null;
  return (
    <section className={classes.part} aria-label="How it opens">
      <h3>How it opens</h3>
      {opening && (
        <ol className={classes.steps}>
          {opening.steps.map((step) => (
            <li key={step.number}>
              {step.count > 1 && `${step.count} × `}
              {teardownLabels[step.kind]}
              {step.size && `, ${step.size}`}
              {step.place && `, ${step.place}`}
            </li>
          ))}
        </ol>
      )}
      {opening && <p className={classes.note}>As job {String(opening.jobNumber).padStart(4, "0")} took it apart.</p>}
      {damage.length > 0 && (
        <p className={text.softLine}>
          What broke in the work:{" "}
          {damage
            .map(
              ({ what, place, count }) =>
                `${(damageLabels as Record<string, string>)[what] ?? what}${place ? ` at ${place}` : ""} (${count})`,
            )
            .join(", ")}
          .
        </p>
      )}
    </section>
  );
}

function Outside({ kind: { benchNotes, leastLoads, papers } }: { readonly kind: KindPage }) {
  const pins = benchNotes?.pins ?? [];
  if (pins.length === 0 && !benchNotes?.note && leastLoads.length === 0 && papers.length === 0) return null;
  return (
    <section className={classes.part} aria-label="Outside its set">
      <h3>How it is told to run outside its set</h3>
      {pins.length > 0 && (
        <table className={`${text.table} ${text.ruled}`} aria-label="Pins">
          <TableHead names={["Pin", "Name", "For", "Volts", "At least"]} />
          <tbody>
            {pins.map((pin) => (
              <tr key={pin.pin}>
                <td className={text.figure}>{pin.pin}</td>
                <td>{pin.name}</td>
                <td>{pin.role}</td>
                <td className={text.figure}>{pin.volts === null ? "" : `${pin.volts} V`}</td>
                <td className={text.figure}>{pin.leastAmps === null ? "" : `${pin.leastAmps} A`}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {benchNotes?.note && <p>{benchNotes.note}</p>}
      {leastLoads.length > 0 && (
        <p>Needs a load to regulate: {leastLoads.map((one) => `${one.rail} ${one.amps} A`).join(", ")}.</p>
      )}
      {papers.length > 0 && (
        <p>
          Papers:{" "}
          {papers.map((paper) => (
            <a key={paper.id} href={routes.attachment.replace(":attachmentId", paper.id)} className={classes.paper}>
              {paper.name}
            </a>
          ))}
        </p>
      )}
    </section>
  );
}

function Photos({ kind: { photos } }: { readonly kind: KindPage }) {
  if (photos.length === 0) return null;
  return (
    <section className={classes.part} aria-label="Photos">
      <h3>Photos</h3>
      <ul className={classes.photos}>
        {photos.map((photo) => (
          <li key={photo.photoId}>
            <Link to={`/jobs/${photo.jobId}/intake?page=photos`}>
              <img src={routes.photoThumbnail.replace(":photoId", photo.photoId)} alt={photo.caption ?? "the board"} />
            </Link>
            <div className={classes.note}>
              {photo.bad.length > 0 && <b>bad: {photo.bad.join(", ")} </b>}
              {photo.good.length > 0 && <span>good: {photo.good.join(", ")} </span>}
              job {String(photo.jobNumber).padStart(4, "0")}
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
