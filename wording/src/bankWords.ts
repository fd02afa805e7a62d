/** What stands above the kits: how many were tried out of how many parts, or that none fits. */
export function bankLeadWords(
  bank: { readonly kitCount: number; readonly candidateCount: number },
  placeCount: number,
): string {
  const { kitCount, candidateCount } = bank;
  if (candidateCount === 0) return "No part of the catalogue may stand in any of these places.";
  const tried = `Every kit for ${placeCount} places out of ${candidateCount} part${candidateCount === 1 ? "" : "s"} was tried, of each value the strongest, the longest lived and the cheapest`;
  return kitCount === 0
    ? `${tried}: none keeps every limit together.`
    : `${tried}; ${kitCount} ${kitCount === 1 ? "keeps" : "keep"} every limit together.`;
}
