/** How much waits, on the sign of where it does. */
export function RailCount({ count }: { count: number }) {
  if (count === 0) return null;
  return (
    <span
      className="absolute end-3 top-1 grid h-[19px] min-w-[19px] place-items-center rounded-full bg-accent px-1 text-[11.5px] font-semibold text-accent-content"
      data-testid="rail-count"
    >
      {count > 99 ? '99+' : count}
    </span>
  );
}
