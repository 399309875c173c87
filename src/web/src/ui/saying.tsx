import { layers } from './layers';
import { t } from '@lingui/core/macro';
import { XIcon } from '@phosphor-icons/react';
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { sentenceOf } from '../core/runtime';

/** What can be done about what was said. */
export interface SaidAction {
  words: string;
  do: () => void;
  /** Whether the line stays until something else is said, since the work still goes on. */
  stays?: boolean;
}

export type Say = (words: string, action?: SaidAction) => void;

interface Said {
  words: string;
  action?: SaidAction;
}

const shownMilliseconds = 10_000;
/** So many things can be taken back one after the other. */
const mostTaken = 50;

let said: Said = { words: '' };
/** What can be taken back still, the last thing last. */
const done: SaidAction[] = [];
const listeners = new Set<() => void>();

/** Says in one line at the foot what was just done, wherever one goes, for a while. */
export const say: Say = (words, action) => {
  said = action ? { words, action } : { words };
  for (const listener of listeners) listener();
};

/** A way to take back what was done: by the line at the foot, or later by Ctrl+Z. */
export function takeBack(undo: () => void | Promise<void>): SaidAction {
  const action: SaidAction = {
    words: t`Take it back`,
    do: () => {
      const at = done.indexOf(action);
      if (at < 0) return;
      done.splice(at, 1);
      void Promise.resolve()
        .then(undo)
        .then(
          () => say(t`Taken back.`),
          (problem: unknown) => say(sentenceOf(problem)),
        );
    },
  };
  done.push(action);
  if (done.length > mostTaken) done.shift();
  return action;
}

/** The line at the foot. It stays while it has the focus or the pointer is over it. */
export function SaidLine() {
  const { words, action } = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => said,
  );
  const [held, setHeld] = useState(false);
  const line = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const [hold, letGo] = [() => setHeld(true), () => setHeld(false)];
    const held = { pointerenter: hold, focusin: hold, pointerleave: letGo, focusout: letGo };
    for (const [name, listener] of Object.entries(held)) line.current!.addEventListener(name, listener);
  }, []);
  useEffect(() => {
    if (!words || action?.stays || held) return;
    const timer = setTimeout(() => say(''), shownMilliseconds);
    return () => clearTimeout(timer);
  }, [words, action, held]);
  useEffect(() => {
    addEventListener('keydown', takeLastBack);
    return () => removeEventListener('keydown', takeLastBack);
  }, []);
  return (
    <div
      ref={line}
      role="status"
      data-testid="said"
      className={`fixed bottom-[76px] left-1/2 ${layers.said} flex max-w-[calc(100%-32px)] -translate-x-1/2 items-center gap-2 rounded-md bg-neutral ps-4 text-neutral-content ${words ? '' : 'sr-only'}`}
    >
      <span className="py-2.5">{words}</span>
      {action && (
        <button
          type="button"
          className="h-11 px-3 font-semibold underline"
          data-testid="take-back"
          onClick={() => (say(''), action.do())}
        >
          {action.words}
        </button>
      )}
      {words && (
        <button type="button" aria-label={t`Close`} className="grid size-11 place-items-center" onClick={() => say('')}>
          <XIcon size={16} />
        </button>
      )}
    </div>
  );
}

/** Ctrl+Z where nothing is written: takes back the last thing done in the library, the overview or the contents. */
function takeLastBack(event: KeyboardEvent): void {
  if (event.defaultPrevented || event.altKey || event.shiftKey || !(event.ctrlKey || event.metaKey)) return;
  if (event.key.toLowerCase() !== 'z' || done.length === 0) return;
  const at = event.target as Element | null;
  if (at?.closest('input, textarea, select, [contenteditable], [role=dialog]')) return;
  // On a page the key is the ink's, but in its contents.
  if (location.pathname.startsWith('/page/') && !at?.closest('[role=tree]')) return;
  event.preventDefault();
  say('');
  done.at(-1)!.do();
}

/** Copies a link and says so; where the browser does not let it, says the link itself. */
export function copyText(address: string): void {
  void navigator.clipboard.writeText(address).then(
    () => say(t`The link is copied. Paste it where a link is asked for, or anywhere else.`),
    () => say(address),
  );
}
