import { t } from '@lingui/core/macro';
import { NotePencilIcon } from '@phosphor-icons/react';
import { useJot } from './useJot';

/** One press gives an empty page. Where it is `wide` a phone leaves it to the bar at the foot. */
export function JotButton({ wide }: { wide?: boolean }) {
  const jot = useJot();
  return (
    <button
      type="button"
      data-testid="jot"
      title={t`Jot (Alt+J)`}
      disabled={!jot}
      className={`btn btn-primary h-11 min-h-11 px-5 ${wide ? 'max-sm:hidden' : ''}`}
      onClick={() => void jot?.()}
    >
      <NotePencilIcon size={20} weight="light" /> {t`Jot`}
    </button>
  );
}
