import { Button, SegmentedControl } from "@mantine/core";
import { type Position, ratingList, ratingsOf } from "@pale-cap/contract";
import {
  type ComponentKind,
  type ComponentRating,
  type ComponentRatings,
  componentKindsOf,
  componentRatings,
  rankComponents,
} from "@pale-cap/core";
import {
  componentCautions,
  componentGapWords,
  componentKindLabels,
  componentVerdictLabels,
  moneyText,
  ratingLabels,
  ratingText,
} from "@pale-cap/wording";
import { useMemo, useState } from "react";
import { useComponentsQuery } from "../../job/catalogueApi";
import { useJob } from "../../job/JobContext";
import { CommittedText } from "../../ui/CommittedText";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import classes from "./choose.module.css";
import { ReasonForm } from "./ReasonForm";
import { useChoosePlan } from "./useChoosePlan";

const shownCount = 12;

interface Change {
  readonly ratings?: ComponentRatings;
  readonly componentId?: string | null;
}

/** A part that is no electrolytic: what is known of the old one, and what of the list could take its place. */
export function ComponentChoice({ position }: { readonly position: Position }) {
  const { detail, houseRules } = useJob();
  const kinds = componentKindsOf(position.kind);
  const plan = detail.plans.find((one) => one.positionId === position.id);
  const stored = plan?.component ?? null;
  const [first] = kinds;
  const [picked, setPicked] = useState<ComponentKind | null>(null);
  const kind = picked ?? stored?.kind ?? first;
  const { save, problem } = useChoosePlan(position.id);
  const { data: components } = useComponentsQuery(kind as ComponentKind, { skip: kind === undefined });
  const ratings = useMemo(() => (stored && stored.kind === kind ? ratingsOf(stored) : {}), [stored, kind]);
  const ranked = useMemo(
    () => (kind && components ? rankComponents(kind, ratings, components) : []),
    [kind, ratings, components],
  );
  if (kind === undefined) {
    return <p className={text.soft}>Nothing is held against a part of this kind: the same again, or by its sheet.</p>;
  }
  /** From what is stored by then: two fields that are left one after the other both count. */
  const store = (change: Change, reason: string | null = null) =>
    save((_, latest) => {
      const before = latest?.component?.kind === kind ? latest.component : null;
      const componentId = change.componentId === undefined ? (before?.componentId ?? null) : change.componentId;
      const merged = { ...(before && ratingsOf(before)), ...change.ratings };
      return { component: { kind, ratings: ratingList(merged), componentId }, reasons: { part: reason } };
    });
  const chosen = components?.find((one) => one.id === stored?.componentId);
  const isKnown = Object.values(ratings).some((one) => one != null);
  return (
    <>
      <ProblemNote problem={problem} />
      {chosen && (
        <div className={classes.chosen}>
          <span>
            Chosen: <b>{chosen.maker}</b> {chosen.typeNumber}
            {plan?.reasons.part && <div className={classes.source}>because {plan.reasons.part}</div>}
          </span>
          <Button size="xs" onClick={() => void store({ componentId: null })}>
            Undo the choice
          </Button>
        </div>
      )}
      <Part
        title={`The old ${componentKindLabels[kind]}`}
        aside={
          kinds.length > 1 && (
            <SegmentedControl
              size="xs"
              aria-label="Kind of part"
              value={kind}
              data={kinds.map((value) => ({ value, label: componentKindLabels[value] }))}
              onChange={(value) => setPicked(value as ComponentKind)}
            />
          )
        }
      >
        <p className={text.softLine}>By its sheet, or its marking. {componentCautions[kind]}</p>
        <div className={classes.needs}>
          {componentRatings[kind].map((rating) => (
            <RatingField
              key={`${kind} ${rating.name}`}
              rating={rating}
              value={ratings[rating.name] ?? null}
              name={`${position.id} ${kind} ${rating.name}`}
              onCommit={(value) => void store({ ratings: { [rating.name]: value } }, plan?.reasons.part ?? null)}
            />
          ))}
        </div>
      </Part>
      <Part
        title="What could take its place"
        aside={components && <span className={text.soft}>{components.length} of this kind in the list</span>}
      >
        {components?.length === 0 && (
          <p className={text.soft}>
            The list has no part of this kind. The ratings above say what its successor must have.
          </p>
        )}
        {components && components.length > 0 && !isKnown && (
          <p className={text.soft}>Enter what is known of the old one: nothing is compared with nothing.</p>
        )}
        {isKnown && ranked.length > 0 && (
          <table
            className={`${text.table} ${text.ruled} ${classes.table} ${classes.kits}`}
            aria-label="Parts beside the old one"
          >
            <TableHead names={["Part", "", "What falls short", "Price", " "]} />
            <tbody>
              {ranked.slice(0, shownCount).map(({ component, verdict, ratings: compared }) => (
                <tr key={component.id} data-chosen={component.id === chosen?.id || undefined}>
                  <td>
                    <b>{component.maker}</b> {component.typeNumber}
                    <div className={classes.source}>
                      {compared
                        .map(({ rating, after }) => ratingText(rating, after))
                        .filter((one) => one !== "–")
                        .join(", ")}
                    </div>
                  </td>
                  <td>{componentVerdictLabels[verdict]}</td>
                  <td className={verdict === "fits" ? undefined : classes.gap}>{componentGapWords(compared)}</td>
                  <td className={text.figure}>{moneyText(component.priceMinor, houseRules["shop.currency"])}</td>
                  <td>
                    {verdict === "fits" && (
                      <Button size="compact-sm" onClick={() => void store({ componentId: component.id })}>
                        Take
                      </Button>
                    )}
                    {verdict === "with_reason" && (
                      <WithReason
                        name={`${detail.job.id} component ${component.id}`}
                        onTake={(reason) => store({ componentId: component.id }, reason)}
                      />
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Part>
    </>
  );
}

function RatingField(props: {
  readonly rating: ComponentRating;
  readonly value: number | string | null;
  readonly name: string;
  readonly onCommit: (value: ComponentRatings[keyof ComponentRatings]) => void;
}) {
  const { rating, value, name, onCommit } = props;
  const isCharge = rating.name === "gateChargeCoulombs";
  const label = `${ratingLabels[rating.name]}${isCharge ? ", nC" : ""}`;
  if (rating.unit === null) {
    return (
      <CommittedText
        name={name}
        size="xs"
        label={label}
        value={value === null ? "" : String(value)}
        onCommit={(words) => onCommit(words.trim() || null)}
      />
    );
  }
  // Gate charge is typed as sheets print it.
  const factor = isCharge ? 1e9 : 1;
  return (
    <QuantityInput
      label={label}
      unit={rating.unit}
      size="xs"
      value={typeof value === "number" ? Number((value * factor).toPrecision(6)) : null}
      onCommit={(number) => onCommit(number === null ? null : number / factor)}
    />
  );
}

/** A reason that is kept, and stays typed until it is stored. */
function WithReason(props: { readonly name: string; readonly onTake: (reason: string) => Promise<boolean> }) {
  const [reason, setReason, dropReason] = useDraft(props.name, "");
  const [isOpen, setOpen] = useState(reason !== "");
  if (!isOpen) {
    return (
      <Button size="compact-sm" onClick={() => setOpen(true)}>
        Take, because
      </Button>
    );
  }
  return (
    <ReasonForm
      reason={reason}
      onChange={setReason}
      onTake={async (because) => {
        if (!(await props.onTake(because))) return;
        setOpen(false);
        dropReason(reason);
      }}
    />
  );
}
