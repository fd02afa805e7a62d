import type { Position } from "@pale-cap/contract";
import { fittedWords, shareWords } from "@pale-cap/wording";
import { Link } from "react-router";
import { kindAddress, useKindQuery } from "../../job/casebookApi";
import { useJob } from "../../job/JobContext";
import text from "../../ui/text.module.css";

/** What the shop has seen at this place of this model: how often it had failed, what went in, and whether that held. */
export function PlaceRecord({ position }: { readonly position: Position }) {
  const { deviceMaker: maker, deviceModel: model } = useJob().detail.job;
  const query = { maker, model, boardTypeId: null };
  const { data: kind } = useKindQuery(query, { skip: !model });
  const place = kind?.places.find((one) => one.place === position.designator);
  if (!place || (place.seenCount === 0 && place.fittedCount === 0)) return null;
  return (
    <p className={text.softLine}>
      Here before: {position.designator} had failed in {shareWords(place.failedCount, place.seenCount, place.share)} of
      this model.{" "}
      {place.fittedLabel && (
        <>
          Most often {place.fittedLabel} went in: {fittedWords(place.fittedCount, place.fittedReturnedCount)}.
        </>
      )}{" "}
      <Link to={kindAddress(query)}>All of it</Link>
    </p>
  );
}
