/** Hands a file to the browser. */
export function download(name: string, content: BlobPart, mediaType: string): void {
  const address = URL.createObjectURL(new Blob([content], { type: mediaType }));
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
