/** The product's own sign: a hull over its keel. */
export function Mark() {
  return (
    <svg width="34" height="24" viewBox="0 0 34 24" aria-hidden>
      <path d="M3 3h28l-6 10H9z" fill="var(--ink)" />
      <path d="M3 20h28" stroke="var(--pressure)" strokeWidth="3" />
    </svg>
  );
}
