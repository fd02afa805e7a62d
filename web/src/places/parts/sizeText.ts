import type { StockItem } from "@pale-cap/contract";

/** Diameter and height of a heap's cans, in millimetres. */
export const sizeText = ({ marking: { diameterMetres, heightMetres } }: Pick<StockItem, "marking">): string =>
  diameterMetres === null || heightMetres === null ? "–" : `${diameterMetres * 1e3}×${heightMetres * 1e3}`;
