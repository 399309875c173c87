import { SignButton } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useRef } from 'react';
import { useRoving } from '../ui/useRoving';
import { CheckSquareIcon, FunnelSimpleIcon, ListIcon, RowsIcon, SquaresFourIcon } from '@phosphor-icons/react';
import { groupWords, sortWords, type View } from '../model/libraryView';

const densities = [
  { name: 'rows', words: t`Rows with page strips`, icon: RowsIcon },
  { name: 'covers', words: t`Covers`, icon: SquaresFourIcon },
  { name: 'list', words: t`Plain list`, icon: ListIcon },
] as const;

interface ViewControlsProps {
  view: View;
  onView: (view: View) => void;
  filtering: boolean;
  onFilter?: (on: boolean) => void;
  choosing: boolean;
  onChoosing: (on: boolean) => void;
  /** Whether there are inner folders whose things may be shown too. */
  nested: boolean;
}

/** One sort control, one grouping control, the density, and what narrows down. */
export function ViewControls({ view, onView, filtering, onFilter, choosing, onChoosing, nested }: ViewControlsProps) {
  const controls = useRef<HTMLDivElement>(null);
  useRoving(controls, { items: 'button, [type=checkbox]', first: '[aria-checked=true]' });
  return (
    <div ref={controls} className="flex flex-wrap items-center gap-1.5" role="group" aria-label={t`How it is shown`}>
      <select
        aria-label={t`Sorted by`}
        data-testid="sort"
        className="select select-ghost h-11 w-auto max-w-44"
        value={`${view.sort}${view.reversed ? ' reversed' : ''}`}
        onChange={(event) => {
          const [sort, reversed] = event.target.value.split(' ');
          onView({
            ...view,
            sort: sort as View['sort'],
            reversed: reversed === 'reversed',
            ...(sort === 'own' ? { deep: false } : {}),
          });
        }}
      >
        {(Object.keys(sortWords) as View['sort'][]).flatMap((sort) =>
          (sort === 'own' ? [false] : [false, true]).map((reversed) => (
            <option key={`${sort}${reversed}`} value={`${sort}${reversed ? ' reversed' : ''}`}>
              {reversed ? t`${sortWords[sort]}, the other way round` : sortWords[sort]}
            </option>
          )),
        )}
      </select>
      <select
        aria-label={t`Grouped`}
        data-testid="group"
        className="select select-ghost h-11 w-auto max-w-44"
        value={view.group}
        onChange={(event) => onView({ ...view, group: event.target.value as View['group'] })}
      >
        {(Object.keys(groupWords) as View['group'][]).map((group) => (
          <option key={group} value={group}>
            {groupWords[group]}
          </option>
        ))}
      </select>
      <div className="flex" role="radiogroup" aria-label={t`Density`}>
        {densities.map(({ name, words, icon: Shown }) => (
          <SignButton
            key={name}
            label={words}
            role="radio"
            aria-checked={view.density === name}
            data-testid={`density-${name}`}
            onClick={() => onView({ ...view, density: name })}
          >
            <Shown size={20} weight="light" />
          </SignButton>
        ))}
      </div>
      {view.density !== 'list' && (
        <input
          type="range"
          min={3}
          max={8}
          step={1}
          value={view.size}
          aria-label={t`Size of the pictures`}
          title={t`Size`}
          data-testid="picture-size"
          className="range range-primary range-xs mx-1 w-20"
          onChange={(event) => onView({ ...view, size: Number(event.target.value) })}
        />
      )}
      {nested && (
        <label className="flex h-11 items-center gap-2 px-1.5">
          <input
            type="checkbox"
            className="checkbox checkbox-primary checkbox-xs"
            data-testid="deep"
            checked={view.deep}
            onChange={(event) => onView({ ...view, deep: event.target.checked })}
          />
          {t`Inner folders too`}
        </label>
      )}
      <SignButton
        label={t`Choose several`}
        aria-pressed={choosing}
        data-testid="choose-several"
        onClick={() => onChoosing(!choosing)}
      >
        <CheckSquareIcon size={20} weight="light" />
      </SignButton>
      {onFilter && (
        <button
          type="button"
          aria-pressed={filtering}
          data-testid="filter"
          className={`flex h-11 items-center gap-1.5 rounded-md px-2.5 ${filtering ? 'bg-base-200 font-semibold' : 'hover:bg-base-200'}`}
          onClick={() => onFilter(!filtering)}
        >
          <FunnelSimpleIcon size={20} weight="light" />
          {t`Filter`}
        </button>
      )}
    </div>
  );
}
