import { t } from '@lingui/core/macro';
interface PullHintProps {
  /** −1 to 1 and beyond. */
  pull: number;
  sideways: boolean;
  isLast: boolean;
  isFirst: boolean;
  mayWrite: boolean;
  /** Whether the pull began at the end: what scrolled there makes no page. */
  meant: boolean;
}

/** While the sheet is pulled past its end: what letting go would do. */
export function PullHint({ pull, sideways, isLast, isFirst, mayWrite, meant }: PullHintProps) {
  if (Math.abs(pull) < 0.15) return null;
  const forward = pull > 0;
  const makes = forward ? isLast : isFirst;
  if (makes && !mayWrite) return null;
  const ready = Math.abs(pull) >= 1 && (!makes || meant);
  const words = makes
    ? !meant
      ? t`Let go and pull again for a new page`
      : ready
        ? t`Let go for a new page`
        : t`Pull on for a new page`
    : ready
      ? forward
        ? t`Let go for the page after`
        : t`Let go for the page before`
      : forward
        ? t`Pull on for the page after`
        : t`Pull on for the page before`;
  const place = sideways
    ? forward
      ? 'right-24 top-1/2'
      : 'left-32 top-1/2'
    : forward
      ? 'bottom-8 left-1/2 -translate-x-1/2'
      : 'left-1/2 top-8 -translate-x-1/2';
  return (
    <p
      role="status"
      data-testid="pull"
      className={`pointer-events-none absolute z-10 rounded-full border px-4 py-2 ${place} ${ready ? 'border-primary bg-primary text-primary-content' : 'border-base-300 bg-base-100'}`}
    >
      {words}
    </p>
  );
}
