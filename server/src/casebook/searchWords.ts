/** Words as they are searched by: small letters, no accents, figures and letters only. */
export function plainWords(text: string): readonly string[] {
  return text
    .normalize("NFD")
    .replaceAll(/\p{Mn}/gu, "")
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((one) => one !== "");
}
