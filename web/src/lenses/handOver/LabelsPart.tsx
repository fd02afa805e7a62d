import { Button, NumberInput, TextInput } from "@mantine/core";
import { type JobLabelKind, labelsOnSheet, routes } from "@pale-cap/contract";
import { weightOf } from "@pale-cap/core";
import { useState } from "react";
import { useJob } from "../../job/JobContext";
import { url } from "../../job/onJob";
import { Part } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import classes from "./handOver.module.css";

/** Labels for the unit, for bags with what came out of it, and tags of what can hurt a hand. */
export function LabelsPart() {
  const { detail, houseRules, charge, openPoints } = useJob();
  const [place, setPlace] = useState<number | string>(1);
  const [words, setWords] = useState("");
  const isSheet = houseRules["shop.labels"] === "sheet";
  const asksForTag = charge.name !== "verified" || openPoints.some((one) => weightOf(one.code) === "earth");
  const address = (kind: JobLabelKind) => {
    const query = new URLSearchParams({ kind, ...(isSheet && place !== "" ? { place: String(place) } : {}) });
    if (kind === "bag" && words.trim() !== "") query.set("words", words.trim());
    return `/${url(routes.jobLabels, detail.job.id)}?${query}`;
  };
  const label = (kind: JobLabelKind, name: string) => (
    <Button component="a" size="xs" href={address(kind)} target="_blank" rel="noreferrer">
      {name}
    </Button>
  );
  return (
    <Part title="Labels">
      <div className={classes.files}>
        {label("unit", "Unit")}
        {label("bag", "Bag")}
        <TextInput
          size="xs"
          aria-label="What is in the bag"
          placeholder="in the bag: C14 C21 old"
          maxLength={80}
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
        />
        {asksForTag && label("tag", "Warning tag")}
      </div>
      {isSheet && (
        <div className={classes.minutes}>
          <NumberInput
            size="xs"
            label="First free place on the sheet"
            min={1}
            max={labelsOnSheet}
            clampBehavior="strict"
            allowDecimal={false}
            value={place}
            onChange={setPlace}
          />
          <span className={text.soft}>Row by row, three beside one another. House rules say which labels.</span>
        </div>
      )}
    </Part>
  );
}
