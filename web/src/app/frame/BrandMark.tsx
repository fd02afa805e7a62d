export function BrandMark() {
  return (
    <svg viewBox="0 0 26 26" width="26" height="26" aria-hidden="true">
      <circle cx="13" cy="13" r="11" fill="var(--sleeve)" stroke="var(--can-edge)" strokeWidth="1.7" />
      <path d="M18 3.2a11 11 0 0 1 0 19.6z" fill="var(--stripe)" />
    </svg>
  );
}
