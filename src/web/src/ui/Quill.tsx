/** The sign of the house: a quill that has just drawn a line. */
export function Quill({ size = 40 }: { size?: number }) {
  return (
    <svg
      viewBox="0 0 40 40"
      width={size}
      height={size}
      fill="none"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden="true"
    >
      <path
        className="stroke-primary"
        strokeWidth="1.6"
        d="M31 3C19 7 11 17 11 32M31 3c3 11-3 21-18 24M31 3C24 11 16 19 11 32"
      />
      <path className="stroke-accent" strokeWidth="2" d="M6 36h13" />
    </svg>
  );
}
