import { Button } from '../ui/Button';
import { plural, t } from '@lingui/core/macro';
import { XIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import type { Member } from '../data/usePeople';
import { type Filter, isChosen, noFilter, spans, type TagUse } from './filter';
import type { Library } from '../data/Library';
import type { Tag } from '../model/items';
import { fillOf } from '../model/colours';

const next: Record<string, TagUse | ''> = { '': 'any', any: 'all', all: 'none', none: '' };
const useWords: Record<TagUse, string> = { any: t`any of`, all: t`all of`, none: t`none of` };
const fewTags = 14;

interface FilterBarProps {
  /** The libraries that are looked in; tags of one name count as one. */
  libraries: Library[];
  people: Member[];
  filter: Filter;
  found?: number;
  onFilter: (filter: Filter) => void;
  /** Undefined where a lens cannot ask the same. */
  onSave: (() => void) | undefined;
  saveWords: string;
}

/** What narrows a library down, across all folders: each press on a tag goes from any, over all, to none. The result follows at once. */
export function FilterBar({ libraries, people, filter, found, onFilter, onSave, saveWords }: FilterBarProps) {
  const [every, setEvery] = useState(false);
  const tags = tagsOf(libraries);
  // A tag that a lens names and that is not there any more can be taken out of it.
  const gone = Object.keys(filter.tags).filter((id) => libraries.every((library) => library.tagsOf([id]).length === 0));
  const [library] = libraries.length === 1 ? libraries : [];
  const shown = every ? tags : tags.filter((tag, i) => i < fewTags || filter.tags[tag.id]);
  const folders = [...(library?.nodes.values() ?? [])]
    .filter((node) => node.kind === 'folder' && !node.inBin)
    .sort((a, b) => (a.natural < b.natural ? -1 : 1));
  return (
    <section aria-label={t`Filter`} data-testid="filter-bar" className="border-b border-base-300 py-3">
      <div className="flex flex-wrap gap-1.5" role="group" aria-label={t`Tags`}>
        {shown.map((tag) => {
          const use = filter.tags[tag.id];
          return (
            <button
              key={tag.id}
              type="button"
              data-testid="filter-tag"
              data-name={tag.path}
              aria-label={`${tag.path}, ${use ? useWords[use] : t`not asked for`}`}
              title={t`Press for any of, all of, none of`}
              className={`flex h-10 items-center gap-1.5 rounded-md border px-2.5 ${use ? 'border-primary bg-base-200' : 'border-base-300'} ${use === 'none' ? 'line-through decoration-2' : ''}`}
              onClick={() => {
                const tagsAfter = { ...filter.tags };
                const after = next[use ?? '']!;
                if (after) tagsAfter[tag.id] = after;
                else delete tagsAfter[tag.id];
                onFilter({ ...filter, tags: tagsAfter });
              }}
            >
              <span className={`size-2.5 rounded-full ${fillOf[tag.colour] ?? 'bg-quiet'}`} />
              {tag.path}
              {use && <span className="text-[13px] text-quiet no-underline">{useWords[use]}</span>}
            </button>
          );
        })}
        {gone.map((id) => (
          <button
            key={id}
            type="button"
            data-testid="filter-gone"
            title={t`Take it out`}
            className="flex h-11 items-center gap-1.5 rounded-md border border-dashed border-error px-2.5 text-error"
            onClick={() => {
              const { [id]: _, ...tagsAfter } = filter.tags;
              onFilter({ ...filter, tags: tagsAfter });
            }}
          >
            {t`A tag that is gone`}
            <XIcon size={16} aria-label={t`take it out`} />
          </button>
        ))}
        {tags.length === 0 && <p className="py-2 text-quiet">{t`No tags yet. Put one on a notebook by its menu.`}</p>}
        {tags.length > shown.length && (
          <button type="button" className="h-10 px-2 underline" onClick={() => setEvery(true)}>
            {t`${tags.length - shown.length} more`}
          </button>
        )}
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-1.5">
        <input
          className="input h-10 w-44 border-base-300 bg-base-100"
          placeholder={t`Title holds`}
          aria-label={t`Title holds`}
          data-testid="filter-title"
          value={filter.titled}
          onChange={(event) => onFilter({ ...filter, titled: event.target.value })}
        />
        <Choice
          label={t`Kind`}
          value={filter.kind}
          onChange={(kind) => onFilter({ ...filter, kind: kind as Filter['kind'] })}
          options={[
            ['', t`Any kind`],
            ['notebook', t`Notebooks`],
            ['section', t`Sections`],
            ['page', t`Pages`],
          ]}
        />
        <Choice
          label={t`Written`}
          value={filter.written}
          onChange={(written) => onFilter({ ...filter, written })}
          options={[
            ['', t`Whenever written`],
            ...spans.map(({ name, words }) => [name, t`Written ${words.toLowerCase()}`] as [string, string]),
          ]}
        />
        <Choice
          label={t`Person`}
          value={filter.person}
          onChange={(person) => onFilter({ ...filter, person })}
          options={[
            ['', t`By anybody`],
            ...people.map((person) => [person.id, t`By ${person.name}`] as [string, string]),
          ]}
        />
        {library && (
          <Choice
            label={t`Folder`}
            value={filter.folder}
            onChange={(folder) => onFilter({ ...filter, folder })}
            options={[
              ['', t`In any folder`],
              ...folders.map((folder) => [folder.id, t`In ${folder.name}`] as [string, string]),
            ]}
          />
        )}
        <label className="flex h-10 items-center gap-2 px-1.5">
          <input
            type="checkbox"
            className="checkbox checkbox-primary checkbox-xs"
            checked={filter.starred}
            data-testid="filter-starred"
            onChange={(event) => onFilter({ ...filter, starred: event.target.checked })}
          />
          {t`Starred`}
        </label>
        <div className="ms-auto flex items-center gap-1.5">
          <p role="status" className="px-2 text-quiet" data-testid="found">
            {found === undefined ? '' : plural(found, { one: '# found', other: '# found' })}
          </p>
          {isChosen(filter) && <Button onClick={() => onFilter(noFilter)}>{t`Clear`}</Button>}
          {isChosen(filter) && onSave && (
            <Button data-testid="save-lens" onClick={onSave}>
              {saveWords}
            </Button>
          )}
        </div>
      </div>
    </section>
  );
}

/** The tags of all libraries by name, each once. */
function tagsOf(libraries: Library[]): Tag[] {
  const byName = new Map<string, Tag>();
  for (const library of libraries)
    for (const tag of library.tags) {
      const name = tag.path.toLowerCase();
      if (!byName.has(name)) byName.set(name, tag);
    }
  return libraries.length === 1
    ? [...byName.values()]
    : [...byName.values()].sort((a, b) => a.path.localeCompare(b.path, undefined, { numeric: true }));
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: [string, string][];
  onChange: (value: string) => void;
}) {
  return (
    <select
      aria-label={label}
      data-testid={`filter-${label.toLowerCase()}`}
      className={`select h-10 w-auto max-w-48 border-base-300 bg-base-100 ${value ? 'font-semibold' : ''}`}
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      {options.map(([name, words]) => (
        <option key={name} value={name}>
          {words}
        </option>
      ))}
    </select>
  );
}
