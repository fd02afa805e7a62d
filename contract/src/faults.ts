/** What can be wrong with one field. Its sentence is made by the wording, from the code and its values. */
export const faultCodes = [
  "needed",
  "empty",
  "wrong_type",
  "not_finite",
  "not_whole",
  "not_known_word",
  "not_id",
  "not_moment",
  "not_day",
  "not_in_calendar",
  "below_least",
  "above_most",
  "not_below",
  "not_above",
  "outside_limits",
  "too_long",
  "too_many_entries",
  "too_few_entries",
  "too_many_values",
  "too_many_fields",
  "too_deep",
  "unknown_fields",
  "not_storable",
  "must_stay_empty",
  "value_beside_word",
  "word_of_other_quantity",
  "day_too_long",
  "reason_needed",
  "not_object_with_id",
  "not_short_word",
  "not_flag",
  "not_rule",
  "not_currency",
  "not_time_zone",
  "not_address",
  "not_on_job",
  "not_on_board",
  "already_on_board",
  "place_taken",
  "corrected_already",
  "leads_back",
  "contradicts_tick",
  "own_or_catalogue",
  "not_rising",
  "not_taken",
  "too_short",
  "too_easy",
  "not_pin",
  "not_valid",
] as const;
export type FaultCode = (typeof faultCodes)[number];

/** A code with the limits and names that its sentence needs. */
export type Fault = {
  readonly code: FaultCode;
  readonly values?: Readonly<Record<string, number | string>>;
};

export function fault(code: FaultCode, values?: Fault["values"]): Fault {
  return values ? { code, values } : { code };
}

/** The fault of one entry of Yup's errors: its types take every message for text, ours are faults. */
export function faultOf(error: { readonly errors: readonly unknown[] }): Fault {
  const [first] = error.errors;
  return isFault(first) ? first : fault("not_valid");
}

function isFault(value: unknown): value is Fault {
  return typeof value === "object" && value !== null && "code" in value;
}
