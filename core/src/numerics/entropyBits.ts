/** H(p) = -p log2 p - (1 - p) log2(1 - p), in bits; 0 where nothing is open. */
export function entropyBits(probability: number): number {
  if (!(probability > 0 && probability < 1)) return 0;
  return -probability * Math.log2(probability) - (1 - probability) * Math.log2(1 - probability);
}
