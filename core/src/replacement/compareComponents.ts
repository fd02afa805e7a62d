import { type ComponentKind, type ComponentRating, componentRatings, type RatingName } from "./componentRatings";

/** Ratings by their name, SI; a word for what is no number. Absent or null: not known. */
export type ComponentRatings = Readonly<Partial<Record<RatingName, number | string | null>>>;

export interface CatalogueComponent {
  readonly id: string;
  readonly kind: ComponentKind;
  readonly maker: string;
  readonly typeNumber: string;
  readonly ratings: ComponentRatings;
  readonly priceMinor: number;
}

export type RatingVerdict =
  | "meets"
  /** It falls short; a reason can override it. */
  | "worse"
  /** It falls short of what no reason overrides. */
  | "refused"
  | "old_not_known"
  | "new_not_known";

export interface ComparedRating {
  readonly rating: ComponentRating;
  readonly before: number | string | null;
  readonly after: number | string | null;
  readonly verdict: RatingVerdict;
}

/** `cannot_tell`: something that no reason overrides is not known of one of them. */
export type ComponentVerdict = "fits" | "with_reason" | "cannot_tell" | "never";

export interface ComponentComparison {
  readonly verdict: ComponentVerdict;
  readonly ratings: readonly ComparedRating[];
}

const slack = 1e-9;

/**
 * A new part beside the old one, rating by rating. What is not known of either is never taken as met: where it is one that no
 * reason overrides, nothing can be said of the whole.
 */
export function compareComponents(
  kind: ComponentKind,
  before: ComponentRatings,
  after: ComponentRatings,
): ComponentComparison {
  const ratings = componentRatings[kind].map((rating): ComparedRating => {
    const [was, is] = [before[rating.name] ?? null, after[rating.name] ?? null];
    return { rating, before: was, after: is, verdict: ratingVerdict(rating, was, is) };
  });
  const has = (...verdicts: readonly RatingVerdict[]) => ratings.some((one) => verdicts.includes(one.verdict));
  const isUnknown = ({ rating, verdict }: ComparedRating) => rating.isHard && verdict.endsWith("not_known");
  const verdict = has("refused")
    ? "never"
    : ratings.some(isUnknown)
      ? "cannot_tell"
      : has("worse", "old_not_known", "new_not_known")
        ? "with_reason"
        : "fits";
  return { verdict, ratings };
}

function ratingVerdict(
  rating: ComponentRating,
  before: number | string | null,
  after: number | string | null,
): RatingVerdict {
  if (before === null) return "old_not_known";
  if (after === null) return "new_not_known";
  if (isMet(rating, before, after)) return "meets";
  return rating.isHard ? "refused" : "worse";
}

function isMet(rating: ComponentRating, before: number | string, after: number | string): boolean {
  switch (rating.rule) {
    case "same_word":
      return same(before) === same(after);
    case "not_weaker": {
      const place = (word: number | string) => rating.order.findIndex((one) => same(one) === same(word));
      // A word that is in no order is only as good as itself.
      return place(before) < 0 || place(after) < 0 ? same(before) === same(after) : place(after) >= place(before);
    }
    case "at_least":
      return Number(after) >= rating.ratio * Number(before) * (1 - slack);
    case "at_most":
      return Number(after) <= rating.ratio * Number(before) * (1 + slack);
    case "within":
      return (
        Number(after) >= rating.low * Number(before) * (1 - slack) &&
        Number(after) <= rating.high * Number(before) * (1 + slack)
      );
  }
}

const same = (word: number | string): string => String(word).trim().toLowerCase();

export interface RankedComponent extends ComponentComparison {
  readonly component: CatalogueComponent;
}

const order: readonly ComponentVerdict[] = ["fits", "with_reason", "cannot_tell", "never"];

/** Parts of one kind: what fits first, then by how little is open, then by price. */
export function rankComponents(
  kind: ComponentKind,
  before: ComponentRatings,
  components: readonly CatalogueComponent[],
): readonly RankedComponent[] {
  const openCount = ({ ratings }: RankedComponent) => ratings.filter((one) => one.verdict !== "meets").length;
  return components
    .filter((one) => one.kind === kind)
    .map((component) => ({ component, ...compareComponents(kind, before, component.ratings) }))
    .sort(
      (a, b) =>
        order.indexOf(a.verdict) - order.indexOf(b.verdict) ||
        openCount(a) - openCount(b) ||
        a.component.priceMinor - b.component.priceMinor,
    );
}
