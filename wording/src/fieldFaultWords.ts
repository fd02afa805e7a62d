import type { Fault, FieldProblem } from "@pale-cap/contract";

/** What is wrong with a field, as it goes on after its name: "must be at most 24". */
export function fieldFaultWords({ code, values = {} }: Fault): string {
  switch (code) {
    case "needed":
      return "is needed";
    case "empty":
      return "must not be empty";
    case "wrong_type":
      return `must be a ${values.type}`;
    case "not_finite":
      return "must be a finite number";
    case "not_whole":
      return "must be a whole number";
    case "not_known_word":
      return "is not one of the known words";
    case "not_id":
      return "must be a UUID in lower case";
    case "not_moment":
      return "must be a moment in ISO 8601 with time zone";
    case "not_day":
      return "must be a date like 2027-03-31";
    case "not_in_calendar":
      return "is not a day of the calendar";
    case "below_least":
      return `must be at least ${values.least}`;
    case "above_most":
      return `must be at most ${values.most}`;
    case "not_below":
      return `must be below ${values.limit}`;
    case "not_above":
      return `must be above ${values.limit}`;
    case "outside_limits":
      return `must lie between ${values.least} and ${values.most} ${values.unit}`.trim();
    case "too_short":
      return `needs at least ${values.least} characters`;
    case "too_easy":
      return "is too easy to guess";
    case "not_pin":
      return "must be 4 to 8 digits";
    case "too_long":
      return `is longer than ${values.most} characters`;
    case "too_many_entries":
      return `holds more than ${values.most} entries`;
    case "too_few_entries":
      return `needs at least ${values.least} entry`;
    case "too_many_values":
      return `holds more than ${values.most} values`;
    case "too_many_fields":
      return "has too many fields";
    case "too_deep":
      return `is nested more than ${values.most} deep`;
    case "unknown_fields":
      return `has fields that are not known: ${values.names}`;
    case "contradicts_tick":
      return "contradict the tick: that is a short";
    case "not_storable":
      return "holds a character that cannot be stored";
    case "must_stay_empty":
      return "must stay empty here";
    case "value_beside_word":
      return "must stay empty beside a word";
    case "word_of_other_quantity":
      return "does not belong to this quantity";
    case "day_too_long":
      return "has more than 24 hours together";
    case "reason_needed":
      return "needs a reason";
    case "not_object_with_id":
      return "must be an object with an id";
    case "not_short_word":
      return "must be a short word";
    case "not_flag":
      return "must be yes or no";
    case "not_rule":
      return "is not a rule of the house";
    case "not_currency":
      return "is not a currency code like EUR";
    case "not_address":
      return "must begin with http:// or https:// and hold {number}, where the job's number goes";
    case "not_time_zone":
      return "is not a time zone like Europe/Berlin";
    case "not_on_job":
      return "is not on this job";
    case "not_on_board":
      return "is not on this board";
    case "already_on_board":
      return "is already on the board";
    case "place_taken":
      return "holds a part already";
    case "not_rising":
      return "each break begins above the one before";
    case "own_or_catalogue":
      return "must be either a part of the catalogue or an own one";
    case "corrected_already":
      return "was corrected already";
    case "leads_back":
      return "leads back to this rail";
    case "not_taken":
      return "cannot be taken";
    case "not_valid":
      return "is not valid";
  }
}

/** The same with the field's own name before it, where it cannot be shown at its place. */
export function fieldProblemWords(problem: FieldProblem): string {
  return `${problem.path.split(".").at(-1) ?? ""} ${fieldFaultWords(problem)}`.trim();
}
