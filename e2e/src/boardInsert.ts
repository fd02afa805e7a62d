/** One row that a board edit adds. */
export const boardInsert = (table: string, id: string, values: object) => ({
  table,
  operation: "insert",
  id,
  version: null,
  values,
});
