import { t } from '@lingui/core/macro';
import { XIcon } from '@phosphor-icons/react';
import type { MenuEntry } from '../ui/Menu';
import type { Selection } from '../ui/useChosen';

/** What can be done to all that are chosen, at the foot of the list. */
export function SelectionBar({ selection, entries }: { selection: Selection; entries: MenuEntry[] }) {
  return (
    <div
      role="toolbar"
      aria-label={t`With what is chosen`}
      data-testid="selection-bar"
      className="flex shrink-0 items-center gap-1 overflow-x-auto border-t border-base-300 bg-base-200 px-4 py-1.5 *:shrink-0 max-sm:px-2"
    >
      <p className="px-2 font-semibold" data-testid="chosen-count">
        {selection.chosen.size === 0 ? t`Press what you want to choose` : t`${selection.chosen.size} chosen`}
      </p>
      <button type="button" className="h-11 px-2 underline" onClick={selection.all}>{t`All`}</button>
      <div className="grow max-sm:hidden" />
      {entries.map((entry) => (
        <button
          key={entry.label}
          type="button"
          data-testid={entry.testId ? `chosen-${entry.testId}` : undefined}
          className="flex h-11 items-center gap-2 rounded-md px-2.5 hover:bg-base-100"
          onClick={entry.onChoose}
        >
          {entry.icon}
          {entry.label}
        </button>
      ))}
      <button
        type="button"
        aria-label={t`Choose nothing`}
        title={t`Choose nothing`}
        className="max-sm:-order-1 grid size-11 place-items-center rounded-md hover:bg-base-100"
        onClick={selection.clear}
      >
        <XIcon size={18} />
      </button>
    </div>
  );
}
