import { type ReactNode, useEffect, useRef, useState } from 'react';

export interface MenuEntry {
  label: string;
  icon: ReactNode;
  testId?: string;
  onChoose: () => void;
}

/** A button that unfolds a short list; no entry opens another list. */
export function Menu({ label, icon, entries, testId }: { label: string; icon: ReactNode; entries: MenuEntry[]; testId?: string }) {
  const [open, setOpen] = useState(false);
  const holder = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!open) return;
    const away = (event: PointerEvent) => !holder.current?.contains(event.target as Node) && setOpen(false);
    addEventListener('pointerdown', away);
    holder.current?.querySelector<HTMLElement>('[role=menuitem]')?.focus();
    return () => removeEventListener('pointerdown', away);
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
        className="grid size-10 place-items-center rounded-md text-quiet hover:bg-base-200"
        onClick={() => setOpen(!open)}
      >
        {icon}
      </button>
      {open && (
        <div role="menu" aria-label={label} className="absolute right-0 z-30 mt-1 w-52 rounded-md border border-base-300 bg-base-100 p-1 shadow-lg">
          {entries.map((entry) => (
            <button
              key={entry.label}
              type="button"
              role="menuitem"
              data-testid={entry.testId}
              className="flex h-10 w-full items-center gap-3 rounded px-3 text-left hover:bg-base-200 focus:bg-base-200"
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
