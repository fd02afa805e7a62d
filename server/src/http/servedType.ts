/** What a browser only shows: a picture, or a document in its own viewer. Anything else that was stored is a file to be saved. */
const shown = ["image/jpeg", "image/png", "image/webp", "application/pdf"];

/** The type under which stored bytes are served, whatever was stored with them: nothing of a shop's files ever runs in its pages. */
export const servedType = (mediaType: string): string =>
  shown.includes(mediaType) ? mediaType : "application/octet-stream";

/** Goes with every stored file: taken as what it is said to be, and never as a page. */
export const asFile = {
  "X-Content-Type-Options": "nosniff",
  "Content-Security-Policy": "default-src 'none'; sandbox",
} as const;
