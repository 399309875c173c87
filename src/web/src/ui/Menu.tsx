import { type ReactNode, useEffect, useRef, useState } from 'react';

export interface MenuEntry {
  label: string;
  icon: ReactNode;
  testId?: string;
  onChoose: () => void;
}

/** A button that unfolds a short list; no entry opens another list. */
export function Menu({
  label,
  icon,
  entries,
  testId,
}: {
  label: string;
  icon: ReactNode;
  entries: MenuEntry[];
  testId?: string;
}) {
  const [open, setOpen] = useState(false);
  const holder = useRef<HTMLDivElement>(null);
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!open) return;
    place(list.current!, holder.current!);
    const away = (event: PointerEvent) => !holder.current?.contains(event.target as Node) && setOpen(false);
    addEventListener('pointerdown', away);
    const scrolled = (event: Event) => !list.current?.contains(event.target as Node) && setOpen(false);
    addEventListener('scroll', scrolled, true);
    holder.current?.querySelector<HTMLElement>('[role=menuitem]')?.focus({ preventScroll: true });
    return () => {
      removeEventListener('pointerdown', away);
      removeEventListener('scroll', scrolled, true);
    };
  }, [open]);

  const step = (by: number) => {
    const items = [...(holder.current?.querySelectorAll<HTMLElement>('[role=menuitem]') ?? [])];
    items[(items.indexOf(document.activeElement as HTMLElement) + by + items.length) % items.length]?.focus();
  };

  return (
    <div
      ref={holder}
      className="relative"
      onKeyDown={(event) => {
        if (event.key === 'Escape') setOpen(false);
        else if (event.key === 'ArrowDown') step(1);
        else if (event.key === 'ArrowUp') step(-1);
        else return;
        event.preventDefault();
      }}
      onPointerDown={(event) => event.stopPropagation()}
      role="presentation"
    >
      <button
        type="button"
        aria-haspopup="menu"
        aria-expanded={open}
        aria-label={label}
        title={label}
        data-testid={testId}
        className="grid size-11 place-items-center rounded-md text-quiet hover:bg-base-200"
        onClick={() => setOpen(!open)}
      >
        {icon}
      </button>
      {open && (
        <div
          ref={list}
          role="menu"
          aria-label={label}
          popover="manual"
          className="fixed inset-auto m-0 max-h-[calc(100vh-16px)] w-60 overflow-y-auto rounded-md border border-base-300 bg-base-100 p-1 text-base-content shadow-lg"
        >
          {entries.map((entry) => (
            <button
              key={entry.label}
              type="button"
              role="menuitem"
              data-testid={entry.testId}
              className="flex h-11 w-full items-center gap-3 rounded px-3 text-left hover:bg-base-200 focus:bg-base-200"
              onClick={() => {
                setOpen(false);
                entry.onChoose();
              }}
            >
              {entry.icon}
              {entry.label}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}

/** Lays the list over everything else, below its button, or above where there is no room below. */
function place(list: HTMLElement, button: HTMLElement): void {
  list.showPopover();
  const at = button.getBoundingClientRect();
  const { offsetHeight: height, offsetWidth: width } = list;
  const below = at.bottom + 4;
  list.style.top = `${Math.max(8, below + height <= innerHeight - 8 ? below : Math.min(at.top - 4 - height, innerHeight - 8 - height))}px`;
  list.style.left = `${Math.max(8, Math.min(at.right - width, innerWidth - 8 - width))}px`;
}
