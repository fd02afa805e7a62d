import { array, boolean, mixed, number, object, setLocale, string, tuple } from "yup";
import { fault } from "../faults";

/** Every fault of a schema is a code with values: what the field must be is said by the wording. */
setLocale({
  mixed: {
    default: fault("not_valid"),
    required: fault("needed"),
    defined: fault("needed"),
    notNull: fault("empty"),
    notType: ({ type }: { type: string }) => fault("wrong_type", { type }),
    oneOf: fault("not_known_word"),
  },
  string: { max: ({ max }: { max: number }) => fault("too_long", { most: max }), min: fault("needed") },
  number: {
    min: ({ min }: { min: number }) => fault("below_least", { least: min }),
    max: ({ max }: { max: number }) => fault("above_most", { most: max }),
    lessThan: ({ less }: { less: number }) => fault("not_below", { limit: less }),
    moreThan: ({ more }: { more: number }) => fault("not_above", { limit: more }),
    integer: fault("not_whole"),
  },
  array: {
    max: ({ max }: { max: number }) => fault("too_many_entries", { most: max }),
    min: ({ min }: { min: number }) => fault("too_few_entries", { least: min }),
  },
  object: {
    noUnknown: ({ unknown }: { unknown: readonly string[] }) =>
      fault("unknown_fields", { names: [unknown].flat().join(", ") }),
  },
});

/** Building blocks of every schema: numbers are finite, texts have an end, unknown is null. */
export const idField = () => uuid().required();
export const nullableId = () => uuid().nullable().defined();

/** Any version in lower case: Yup's own check knows only versions 1 to 5, and time-ordered ids are version 7. */
const uuid = () =>
  string().matches(/^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/, { message: fault("not_id") });

export const textField = (longest: number) => string().trim().min(1).max(longest).required();
export const nullableText = (longest: number) => string().max(longest).nullable().defined();

export const finiteNumber = () =>
  number().test("finite", fault("not_finite"), (value) => value == null || Number.isFinite(value));
export const nullablePositive = (most: number) => finiteNumber().moreThan(0).max(most).nullable().defined();
export const nullableBetween = (least: number, most: number) =>
  finiteNumber().min(least).max(most).nullable().defined();
export const versionField = () => number().integer().min(1).required();

/** Taking a row off: from the version that the person saw. */
export const removalSchema = () => strictObject({ writeId: idField(), version: versionField() });

export const nullableWord = <T extends string>(words: readonly T[]) =>
  mixed<T>()
    .oneOf([...words, null] as T[])
    .nullable()
    .defined();
export const wordField = <T extends string>(words: readonly T[]) =>
  mixed<T>()
    .oneOf([...words])
    .required();

/** A moment as ISO 8601 with time zone; stored to the millisecond. */
export const instantField = () =>
  string()
    .required()
    .test("instant", fault("not_moment"), (value) => isInstant(value));
export const nullableInstant = () =>
  string()
    .test("instant", fault("not_moment"), (value) => value == null || isInstant(value))
    .nullable()
    .defined();
export const nullableDay = () =>
  string()
    .matches(/^\d{4}-\d{2}-\d{2}$/, { message: fault("not_day"), excludeEmptyString: false })
    .test("day", fault("not_in_calendar"), (value) => value == null || isDay(value))
    .nullable()
    .defined();

/** Beyond these a moment is a slip of the hand or of a clock without battery; the database knows no year 0 either. */
const [earliestYear, latestYear] = [1970, 2200];

function isInstant(value: string | undefined): boolean {
  if (!value || !/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d{1,6})?)?(Z|[+-]\d{2}:\d{2})$/.test(value)) return false;
  const year = Number(value.slice(0, 4));
  return year >= earliestYear && year <= latestYear && Number.isFinite(Date.parse(value)) && isDay(value.slice(0, 10));
}

function isDay(value: string): boolean {
  const moment = new Date(`${value}T00:00:00Z`);
  return Number.isFinite(moment.getTime()) && moment.toISOString().startsWith(value);
}

/** An object that refuses fields it does not know. */
export const strictObject: typeof object = ((shape: Parameters<typeof object>[0]) =>
  object(shape).noUnknown().strict()) as typeof object;

export { array, boolean, mixed, number, object, string, tuple };
