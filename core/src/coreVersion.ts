/** Raised with every change that can turn what is computed: what an older core folded is folded anew. */
export const coreVersion = "0.5.0";
