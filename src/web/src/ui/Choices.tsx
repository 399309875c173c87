import { type KeyboardEvent, type ReactNode, useId } from 'react';

export interface Choice {
  key: string;
  name: string;
  face: ReactNode;
  /** How far it is set in, pixels. */
  indent?: number;
}

interface ChoicesProps {
  label: string;
  placeholder?: string;
  typed: string;
  onTyped: (typed: string) => void;
  choices: Choice[];
  /** Index of the one that Enter takes. */
  at: number;
  onAt: (index: number) => void;
  onEnter: (index: number) => void;
  onPress: (index: number) => void;
  height: number;
  testId: string;
  none?: string;
}

/** A field to type a part of a name in, and below it what fits: by arrow keys and Enter, or by pressing it. */
export function Choices({
  label,
  placeholder,
  typed,
  onTyped,
  choices,
  at,
  onAt,
  onEnter,
  onPress,
  height,
  testId,
  none,
}: ChoicesProps) {
  const list = useId();
  const field = useId();
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') onEnter(at);
    else if (event.key === 'ArrowDown') onAt(Math.min(choices.length - 1, at + 1));
    else if (event.key === 'ArrowUp') onAt(Math.max(0, at - 1));
    else return;
    event.preventDefault();
  };
  return (
    <>
      <label htmlFor={field} className="mb-1 block font-semibold">
        {label}
      </label>
      <input
        id={field}
        className="field"
        value={typed}
        autoFocus
        role="combobox"
        aria-expanded="true"
        aria-controls={list}
        aria-activedescendant={choices[at] ? `${list}-${at}` : undefined}
        placeholder={placeholder ?? 'Type a part of its name'}
        data-testid={`${testId}-typed`}
        onChange={(event) => onTyped(event.target.value)}
        onKeyDown={onKeyDown}
      />
      <div id={list} role="listbox" aria-label={label} className="mt-2 overflow-y-auto" style={{ height }}>
        {choices.map((choice, i) => (
          <button
            key={choice.key}
            id={`${list}-${i}`}
            type="button"
            role="option"
            tabIndex={-1}
            aria-selected={i === at}
            data-testid={`${testId}-choice`}
            data-name={choice.name}
            ref={
              i === at
                ? (element) => {
                    element?.scrollIntoView({ block: 'nearest' });
                  }
                : undefined
            }
            style={{ paddingLeft: 8 + (choice.indent ?? 0) }}
            className={`flex min-h-10 w-full items-center gap-2.5 rounded-md pr-2 text-left hover:bg-base-200 ${i === at ? 'bg-base-200' : ''}`}
            onClick={() => onPress(i)}
          >
            {choice.face}
          </button>
        ))}
        {choices.length === 0 && <p className="py-3 text-quiet">{none ?? 'Nothing is called that.'}</p>}
      </div>
    </>
  );
}

/** The usual face of a choice: its name, and quietly what it is. */
export function ChoiceWords({ words, about }: { words: string; about?: string | undefined }) {
  return (
    <>
      <span className="min-w-0 grow [overflow-wrap:anywhere]">{words}</span>
      {about && <span className="shrink-0 text-[13px] text-quiet">{about}</span>}
    </>
  );
}
