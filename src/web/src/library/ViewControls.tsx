import { useRef } from 'react';
import { useRoving } from '../ui/useRoving';
import { CheckSquareIcon, FunnelSimpleIcon, ListIcon, RowsIcon, SquaresFourIcon } from '@phosphor-icons/react';
import { groupWords, sortWords, type View } from '../model/libraryView';

const densities = [
  { name: 'rows', words: 'Rows with page strips', icon: RowsIcon },
  { name: 'covers', words: 'Covers', icon: SquaresFourIcon },
  { name: 'list', words: 'Plain list', icon: ListIcon },
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
    <div ref={controls} className="flex flex-wrap items-center gap-1.5" role="group" aria-label="How it is shown">
      <select
        aria-label="Sorted by"
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
              {sortWords[sort]}
              {reversed ? ', the other way round' : ''}
            </option>
          )),
        )}
      </select>
      <select
        aria-label="Grouped"
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
      <div className="flex" role="radiogroup" aria-label="Density">
        {densities.map(({ name, words, icon: Shown }) => (
          <button
            key={name}
            type="button"
            role="radio"
            aria-checked={view.density === name}
            aria-label={words}
            title={words}
            data-testid={`density-${name}`}
            className={square(view.density === name)}
            onClick={() => onView({ ...view, density: name })}
          >
            <Shown size={20} weight="light" />
          </button>
        ))}
      </div>
      {view.density !== 'list' && (
        <input
          type="range"
          min={3}
          max={8}
          step={1}
          value={view.size}
          aria-label="Size of the pictures"
          title="Size"
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
          Inner folders too
        </label>
      )}
      <button
        type="button"
        aria-pressed={choosing}
        aria-label="Choose several"
        title="Choose several"
        data-testid="choose-several"
        className={square(choosing)}
        onClick={() => onChoosing(!choosing)}
      >
        <CheckSquareIcon size={20} weight="light" />
      </button>
      {onFilter && (
        <button
          type="button"
          aria-pressed={filtering}
          data-testid="filter"
          className={`flex h-11 items-center gap-1.5 rounded-md px-2.5 ${filtering ? 'bg-base-200 font-semibold' : 'hover:bg-base-200'}`}
          onClick={() => onFilter(!filtering)}
        >
          <FunnelSimpleIcon size={20} weight="light" />
          Filter
        </button>
      )}
    </div>
  );
}

const square = (on: boolean) =>
  `grid size-11 place-items-center rounded-md ${on ? 'bg-base-200 text-primary' : 'text-quiet hover:bg-base-200'}`;
