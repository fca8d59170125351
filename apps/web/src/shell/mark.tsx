/** Zesting's mark: a cut citrus with one slice still open. */
export function Mark({ size = 26 }: { size?: number }) {
  return (
    <svg viewBox="0 0 32 32" width={size} height={size} aria-hidden>
      <g fill="var(--zest)">
        <path d="M16 15 9.2 5.6a11.6 11.6 0 0 1 13.6 0Z" />
        <path d="m17.2 15.9 10.9-3.6A11.6 11.6 0 0 1 24 25.2Z" />
        <path d="m16.6 17.3 6.9 9.3a11.6 11.6 0 0 1-13.8.6Z" opacity=".55" />
      </g>
      <path d="m14.8 15.9-10.9-3.6A11.6 11.6 0 0 0 8 25.2Z" fill="none" stroke="var(--zest)" strokeWidth="1.5" />
    </svg>
  );
}
