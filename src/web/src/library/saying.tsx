import { XIcon } from '@phosphor-icons/react';
import { useCallback, useEffect, useState } from 'react';

/** What can be done about what was said. */
export interface SaidAction {
  words: string;
  do: () => void;
  /** Whether the line stays until something else is said, since the work still goes on. */
  stays?: boolean;
}

export interface Said {
  words: string;
  action?: SaidAction;
}

export type Say = (words: string, action?: SaidAction) => void;

const shownMilliseconds = 8_000;

export const takeBack = (undo: () => void): SaidAction => ({ words: 'Take it back', do: undo });

/** What was just done, said in one line at the foot for a while, with the way to take it back. */
export function useSaying(): { said: Said; say: Say } {
  const [said, setSaid] = useState<Said>({ words: '' });
  const say = useCallback<Say>((words, action) => setSaid(action ? { words, action } : { words }), []);
  useEffect(() => {
    if (!said.words || said.action?.stays) return;
    const timer = setTimeout(() => setSaid({ words: '' }), shownMilliseconds);
    return () => clearTimeout(timer);
  }, [said]);
  return { said, say };
}

export function UndoLine({ said, onClose }: { said: Said; onClose: () => void }) {
  return (
    <div
      role="status"
      data-testid="said"
      className={`absolute bottom-4 left-1/2 z-30 flex max-w-[calc(100%-32px)] -translate-x-1/2 items-center gap-2 rounded-md bg-neutral pl-4 text-neutral-content ${said.words ? '' : 'sr-only'}`}
    >
      <span className="py-2.5">{said.words}</span>
      {said.action && (
        <button
          type="button"
          className="h-10 px-3 font-semibold underline"
          data-testid="take-back"
          onClick={() => (said.action?.do(), onClose())}
        >
          {said.action.words}
        </button>
      )}
      {said.words && (
        <button type="button" aria-label="Close" className="grid size-10 place-items-center" onClick={onClose}>
          <XIcon size={16} />
        </button>
      )}
    </div>
  );
}

/** Copies a link and says so; where the browser does not let it, says the link itself. */
export function copyText(address: string, say: Say): void {
  void navigator.clipboard.writeText(address).then(
    () => say('The link is copied. Paste it where a link is asked for, or anywhere else.'),
    () => say(address),
  );
}
