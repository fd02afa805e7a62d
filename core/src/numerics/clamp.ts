/** The nearest value inside [low, high]. */
export function clamp(x: number, low: number, high: number): number {
  return Math.min(Math.max(x, low), high);
}
