let context: AudioContext | null = null;

/** A short high tone for inside the band, a longer low one for outside: the eye can stay on the probes. */
export function sound(isInside: boolean): void {
  context ??= new AudioContext();
  const [hertz, seconds] = isInside ? [1300, 0.07] : [260, 0.22];
  const oscillator = context.createOscillator();
  const volume = context.createGain();
  oscillator.frequency.value = hertz;
  volume.gain.setValueAtTime(0.15, context.currentTime);
  volume.gain.exponentialRampToValueAtTime(0.001, context.currentTime + seconds);
  oscillator.connect(volume).connect(context.destination);
  oscillator.start();
  oscillator.stop(context.currentTime + seconds);
}

/** Whether a value lies where a sound part reads; of a band that is bad at its low end, above that end. */
export function isInside(
  value: number,
  band: { readonly low: number; readonly high: number; readonly isLowBad: boolean },
): boolean {
  if (band.isLowBad) return value >= band.low;
  return value <= band.high && (band.low >= 0 || value >= band.low);
}
