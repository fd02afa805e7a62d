/** A model as it is told from others, however its maker and name were typed; null where nobody told it. */
export function modelKey(maker: string | null, model: string | null): string | null {
  const plain = (text: string) => text.trim().toLowerCase().replaceAll(/\s+/g, " ");
  if (!model?.trim()) return null;
  return `${plain(maker ?? "")}|${plain(model)}`;
}
