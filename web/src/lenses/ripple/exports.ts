/** A waveform as docs/formats/captures.md has it: a line of titles with units, seconds and volts. */
export function waveformCsv(samples: Float32Array, intervalSeconds: number, name: string): string {
  const lines = [`time (s),${name.replaceAll(/[,;\r\n]/g, " ").replace(/^[=+\-@\t]+/, "")} (V)`];
  for (let n = 0; n < samples.length; n++) lines.push(`${Number((n * intervalSeconds).toPrecision(12))},${samples[n]}`);
  return `${lines.join("\n")}\n`;
}

const scale = 2;

/** The chart of the page as a picture: its SVG with the colours it has now, drawn twice as large. */
export async function chartPng(chart: SVGSVGElement): Promise<Blob> {
  const { width, height } = chart.getBoundingClientRect();
  const copy = chart.cloneNode(true) as SVGSVGElement;
  const [from, to] = [[...chart.querySelectorAll("*")], [...copy.querySelectorAll("*")]];
  for (const [n, element] of to.entries()) {
    const source = from[n];
    if (!source) continue;
    const style = getComputedStyle(source);
    for (const property of ["stroke", "fill", "font-family", "font-size"]) {
      (element as SVGElement).style.setProperty(property, style.getPropertyValue(property));
    }
  }
  const ground = getComputedStyle(document.body).backgroundColor;
  const image = new Image();
  const text = new XMLSerializer().serializeToString(copy);
  await new Promise((resolve, reject) => {
    image.onload = resolve;
    image.onerror = reject;
    image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
  });
  const canvas = document.createElement("canvas");
  canvas.width = width * scale;
  canvas.height = height * scale;
  const context = canvas.getContext("2d");
  if (!context) throw new Error("This browser draws no pictures.");
  context.fillStyle = ground;
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error("The picture could not be made."))), "image/png");
  });
}
