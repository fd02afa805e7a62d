/** Least and most of one column of a drawing. */
export interface DrawnColumn {
  readonly seconds: number;
  readonly low: number;
  readonly high: number;
}

/**
 * A waveform as columns of least and most: nothing that stands out is lost, however long it is.
 *
 * @param columnCount at least 1; fewer samples than columns give one column each
 */
export function decimate(
  samples: ArrayLike<number>,
  intervalSeconds: number,
  columnCount: number,
  fromSample = 0,
  toSample = samples.length,
): readonly DrawnColumn[] {
  const count = Math.max(toSample - fromSample, 0);
  const columns = Math.min(Math.max(Math.floor(columnCount), 1), count);
  return Array.from({ length: columns }, (_, column) => {
    const start = fromSample + Math.floor((column * count) / columns);
    const end =
      fromSample + Math.max(Math.floor(((column + 1) * count) / columns), Math.floor((column * count) / columns) + 1);
    let [low, high] = [Infinity, -Infinity];
    for (let n = start; n < end; n++) {
      const value = samples[n] as number;
      if (value < low) low = value;
      if (value > high) high = value;
    }
    return { seconds: start * intervalSeconds, low, high };
  });
}
