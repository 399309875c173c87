import { SignButton } from './Button';
import { Menu as List } from '@base-ui/react/menu';
import { type ReactNode, useRef, useState } from 'react';
import { layers } from './layers';

export interface MenuEntry {
  label: string;
  icon: ReactNode;
  testId?: string;
  onChoose: () => void;
}

/**
 * A button that unfolds a short list; no entry opens another list. The list is there from its first opening on: of the hundred buttons in a list of notebooks or
 * pages hardly one is ever pressed.
 */
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
  const [wasOpen, setWasOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const first = useRef<HTMLElement>(null);
  const chosen = useRef(false);
  const unfold = (unfolded: boolean) => {
    setOpen(unfolded);
    if (!unfolded) return;
    setWasOpen(true);
    chosen.current = false;
  };
  return (
    // What goes on in the list is not the business of the row that the button stands in.
    <span
      role="presentation"
      className="contents"
      onKeyDown={(event) => event.stopPropagation()}
      onPointerDown={(event) => event.stopPropagation()}
    >
      <SignButton
        label={label}
        ref={button}
        aria-haspopup="menu"
        aria-expanded={open}
        data-testid={testId}
        onClick={() => unfold(!open)}
        onKeyDown={(event) => {
          if (event.key !== 'ArrowDown') return;
          event.preventDefault();
          unfold(true);
        }}
      >
        {icon}
      </SignButton>
      {wasOpen && (
        <List.Root
          open={open}
          modal={false}
          onOpenChange={(unfolded, { event, cancel }) => {
            // A press on its own button is that button's to answer.
            if (button.current?.contains(event.target as Node)) cancel();
            else unfold(unfolded);
          }}
          onOpenChangeComplete={(unfolded) => unfolded && first.current?.focus({ preventScroll: true })}
        >
          <List.Portal>
            <List.Positioner
              anchor={button}
              side="bottom"
              align="end"
              sideOffset={4}
              collisionPadding={8}
              className={layers.menu}
            >
              <List.Popup
                aria-label={label}
                // What was chosen has a focus of its own, such as the field for a new name.
                finalFocus={() => (chosen.current ? false : button.current)}
                className="max-h-(--available-height) w-60 overflow-y-auto rounded-md border border-base-300 bg-base-100 p-1 text-base-content shadow-lg outline-none"
              >
                {entries.map((entry, i) => (
                  <List.Item
                    key={entry.label}
                    ref={i === 0 ? first : undefined}
                    data-testid={entry.testId}
                    className="flex h-11 w-full cursor-default items-center gap-3 rounded px-3 text-start outline-none data-highlighted:bg-base-200"
                    onClick={() => {
                      // What it opens gives the focus back to where it was.
                      chosen.current = true;
                      button.current?.focus();
                      entry.onChoose();
                    }}
                  >
                    {entry.icon}
                    {entry.label}
                  </List.Item>
                ))}
              </List.Popup>
            </List.Positioner>
          </List.Portal>
        </List.Root>
      )}
    </span>
  );
}
