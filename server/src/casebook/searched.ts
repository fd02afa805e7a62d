type Asked = Readonly<Record<string, unknown>>;

/** A word of an address; an empty one was not given. */
export const word = (value: unknown) => (typeof value === "string" && value.trim() !== "" ? value.trim() : null);

/** A search of the casebook as its address has it. */
export const searched = (query: Asked) => ({
  ...{ search: word(query.q), deviceKind: word(query.kind), model: word(query.model) },
  ...{ boardTypeId: word(query.type), symptom: word(query.symptom), cause: word(query.cause) },
  ...{ series: word(query.series), hasReturned: query.back === "yes" },
  offset: query.offset === undefined ? 0 : Number(query.offset),
});
