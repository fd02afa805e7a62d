/**
 * Wilson's 95 % interval of a share. E. B. Wilson, "Probable inference, the law of succession, and statistical inference",
 * JASA 22 (1927).
 */
export function mutantInterval(count, total) {
  const z = 1.96;
  const share = count / total;
  const middle = share + z ** 2 / (2 * total);
  const spread = z * Math.sqrt((share * (1 - share)) / total + z ** 2 / (4 * total ** 2));
  const scale = 1 + z ** 2 / total;
  return { low: (middle - spread) / scale, high: (middle + spread) / scale };
}
