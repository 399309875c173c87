/** A square code (ISO/IEC 18004), dark on paper also by night, since not every camera reads it the other way round. */
export function SquareCode({ modules, label, className }: { modules: string[]; label: string; className: string }) {
  const path = modules
    .flatMap((row, y) => [...row].flatMap((dark, x) => (dark === '1' ? [`M${x} ${y}h1v1h-1z`] : [])))
    .join('');
  return (
    <svg
      viewBox={`0 0 ${modules.length} ${modules.length}`}
      className={`shrink-0 bg-white ${className}`}
      role="img"
      aria-label={label}
      shapeRendering="crispEdges"
    >
      <path d={path} fill="#000" />
    </svg>
  );
}
