/** How one thing that closed jobs move is named in the house rule that leaves such things out. */
export const recordCode = (kind: string, scope: string, subject: string): string =>
  [kind, scope, subject].filter(Boolean).join("/");
