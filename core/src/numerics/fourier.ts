import { OutOfRangeError } from "../errors";

/**
 * Discrete Fourier transform in place, radix two (Cooley and Tukey): X_k = sum x_n e^(-2 pi j k n / N).
 *
 * @param re real parts, a power of two of them; replaced by those of the transform
 * @param im imaginary parts, as many
 * @throws {OutOfRangeError} a length that is no power of two, or lengths that differ
 */
export function fourierTransform(re: Float64Array, im: Float64Array): void {
  const count = re.length;
  if (count < 1 || (count & (count - 1)) !== 0) throw new OutOfRangeError("re", count, "a power of two long");
  if (im.length !== count) throw new OutOfRangeError("im", im.length, "as long as re");
  for (let n = 1, reversed = 0; n < count; n++) {
    let bit = count >> 1;
    for (; reversed & bit; bit >>= 1) reversed ^= bit;
    reversed ^= bit;
    if (n < reversed) {
      [re[n], re[reversed]] = [re[reversed] as number, re[n] as number];
      [im[n], im[reversed]] = [im[reversed] as number, im[n] as number];
    }
  }
  for (let size = 2; size <= count; size <<= 1) {
    const half = size >> 1;
    const angle = (-2 * Math.PI) / size;
    for (let k = 0; k < half; k++) {
      const [cos, sin] = [Math.cos(angle * k), Math.sin(angle * k)];
      for (let start = k; start < count; start += size) {
        const other = start + half;
        const [a, b] = [re[other] as number, im[other] as number];
        const [tr, ti] = [a * cos - b * sin, a * sin + b * cos];
        re[other] = (re[start] as number) - tr;
        im[other] = (im[start] as number) - ti;
        re[start] = (re[start] as number) + tr;
        im[start] = (im[start] as number) + ti;
      }
    }
  }
}
