/** Who did it: what the body says, until people have accounts. Nothing else decides it. */
export function personOf(body: unknown): string | null {
  const { personId } = (body ?? {}) as { personId?: unknown };
  return typeof personId === "string" ? personId : null;
}
