/** The head of a table: one column a name; an empty name heads a column of buttons. */
export function TableHead({ names }: { readonly names: readonly string[] }) {
  return (
    <thead>
      <tr>
        {names.map((name) => (
          <th key={name} scope="col">
            {name}
          </th>
        ))}
      </tr>
    </thead>
  );
}
