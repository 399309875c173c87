import { CaretLeftIcon, CaretRightIcon, PlusIcon } from '@phosphor-icons/react';
import { useEffect, useRef } from 'react';
import type { NotebookEntry } from '../library/model';
import { fillOf } from '../library/palette';

/** The bar under a page: every page of the notebook as a tick. */
export function Thread({ pages, index, sectionOf, onGo, onAdd }: { pages: NotebookEntry[]; index: number; sectionOf: (page: string) => NotebookEntry | undefined; onGo: (index: number) => void; onAdd?: (() => void) | undefined }) {
  const here = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    here.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [index]);
  return (
    <nav aria-label="Pages" className="flex h-[60px] shrink-0 items-center gap-2 border-t border-base-300 px-3">
      <button type="button" aria-label="Page before" title="Page before" data-testid="page-before" disabled={index === 0} onClick={() => onGo(index - 1)} className={arrow}>
        <CaretLeftIcon size={20} />
      </button>
      <ol className="flex min-w-0 shrink items-end overflow-x-auto ">
        {pages.map((page, i) => (
          <li key={page.id}>
            <button
              ref={i === index ? here : undefined}
              type="button"
              aria-label={`Page ${i + 1}${page.title ? `, ${page.title}` : ''}`}
              title={`${i + 1}${page.title ? `  ${page.title}` : ''}`}
              aria-current={i === index ? 'page' : undefined}
              data-testid="tick"
              className="group relative grid h-10 w-[26px] place-items-center"
              onClick={() => onGo(i)}
            >
              <span className={i === index ? 'h-[22px] w-[15px] rounded-[1px] bg-primary' : 'mt-2 h-[13px] w-[10px] rounded-[1px] border border-quiet/60 bg-paper group-hover:border-primary'} />
              <span className={`absolute inset-x-0 bottom-0 h-[3px] ${fillOf[sectionOf(page.id)?.colour ?? ''] ?? (sectionOf(page.id) ? 'bg-spruce' : 'bg-accent/70')}`} />
            </button>
          </li>
        ))}
      </ol>
      <button type="button" aria-label="Page after" title="Page after" data-testid="page-after" disabled={index === pages.length - 1} onClick={() => onGo(index + 1)} className={arrow}>
        <CaretRightIcon size={20} />
      </button>
      <p className="min-w-0 grow truncate text-[13px] text-quiet">{pages[index]?.title}</p>
      {onAdd && (
        <button type="button" className="quiet-button shrink-0" data-testid="add-page" onClick={onAdd}>
          <PlusIcon size={18} />
          Page
        </button>
      )}
    </nav>
  );
}

const arrow = 'grid size-10 shrink-0 place-items-center rounded-md hover:bg-base-200 disabled:opacity-35';
