import { useDebouncedValue } from "@mantine/hooks";
import { faultName, shareWords } from "@pale-cap/wording";
import { memo } from "react";
import { Link } from "react-router";
import { kindAddress, useKindQuery } from "../../job/casebookApi";
import { Part } from "../../ui/Pane";
import { ShareBand } from "../../ui/ShareBand";
import text from "../../ui/text.module.css";
import classes from "./intake.module.css";

const typingMilliseconds = 300;
const shownPlaces = 3;
const shownCauses = 2;

/** What the shop has seen of a model, as soon as it is typed: what usually fails in it, what it takes, whether it comes back. */
export const KnownKindCard = memo(function KnownKindCard({
  maker,
  model,
}: {
  readonly maker: string | null;
  readonly model: string | null;
}) {
  const [asked] = useDebouncedValue({ maker: maker?.trim() || null, model: model?.trim() || null }, typingMilliseconds);
  const query = { ...asked, boardTypeId: null };
  const { currentData: kind } = useKindQuery(query, { skip: asked.model === null });
  if (!kind || kind.seenCount === 0) return null;
  const places = kind.places.filter((one) => one.failedCount > 0).slice(0, shownPlaces);
  const back = kind.comebacks.at(-1);
  return (
    <Part
      title={`Seen here before: ${kind.seenCount} of this model`}
      aside={
        <Link to={kindAddress({ maker: kind.deviceMaker, model: kind.deviceModel, boardTypeId: null })}>all of it</Link>
      }
    >
      {places.map((place) => (
        <div key={place.place} className={classes.knownPlace}>
          <b className={text.figure}>{place.place}</b>
          <ShareBand share={place.share} isLoud={place.standsOut} />
          <span>had failed in {shareWords(place.failedCount, place.seenCount, place.share)}</span>
        </div>
      ))}
      {kind.causes.slice(0, shownCauses).map((cause) => (
        <div key={cause.fault}>
          {faultName(cause.fault)}: {shareWords(cause.count, cause.total, cause.share)}
        </div>
      ))}
      <div className={text.soft}>
        {[
          kind.medianMinutes !== null && `Half took under ${Math.round(kind.medianMinutes)} min.`,
          back &&
            back.total > 0 &&
            `Back with the same fault within ${back.days} days: ${back.count} of ${back.total}.`,
          kind.opening && "How it opens is on its page.",
        ]
          .filter(Boolean)
          .join(" ")}
      </div>
    </Part>
  );
});
