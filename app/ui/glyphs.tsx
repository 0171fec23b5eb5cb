/** Signs of the three grades: told by shape first, colour second. */
export function GradeGlyph({ grade, size = 16 }: { grade: "stop" | "mend" | "watch"; size?: number }) {
  switch (grade) {
    case "stop":
      return (
        <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden style={{ flex: "none" }}>
          <path d="M5 .8h6L15.2 5v6L11 15.2H5L.8 11V5z" fill="var(--danger)" />
        </svg>
      );
    case "mend":
      return (
        <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden style={{ flex: "none" }}>
          <rect x="1.5" y="1.5" width="13" height="13" fill="none" stroke="var(--ink)" strokeWidth="2" />
        </svg>
      );
    case "watch":
      return (
        <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden style={{ flex: "none" }}>
          <circle
            cx="8"
            cy="8"
            r="6.2"
            fill="none"
            stroke="var(--soft)"
            strokeWidth="1.8"
            strokeDasharray="3 2"
          />
        </svg>
      );
  }
}
