import { t } from '@lingui/core/macro';
import { Autocomplete as Combo } from '@base-ui/react/autocomplete';
import { type ReactNode, useEffect, useId, useRef } from 'react';

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
  const list = useRef<HTMLDivElement>(null);
  const field = useId();
  useEffect(() => {
    list.current?.children[at]?.scrollIntoView({ block: 'nearest' });
  }, [at]);
  return (
    <Combo.Root
      inline
      open
      mode="none"
      autoHighlight="always"
      keepHighlight
      // A hand on its way to the button below passes over other choices.
      highlightItemOnHover={false}
      items={choices}
      itemToStringValue={(choice: Choice) => choice.name}
      value={typed}
      onValueChange={(text, { reason }) => reason === 'input-change' && onTyped(text)}
      onItemHighlighted={(_, { index }) => index >= 0 && index !== at && onAt(index)}
    >
      <label htmlFor={field} className="mb-1 block font-semibold">
        {label}
      </label>
      <Combo.Input
        id={field}
        className="field"
        autoFocus
        placeholder={placeholder ?? t`Type a part of its name`}
        data-testid={`${testId}-typed`}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventBaseUIHandler();
          event.preventDefault();
          onEnter(at);
        }}
      />
      <Combo.List ref={list} aria-label={label} className="mt-2 overflow-y-auto" style={{ height }}>
        {choices.map((choice, i) => (
          <Combo.Item
            key={choice.key}
            value={choice}
            index={i}
            data-testid={`${testId}-choice`}
            data-name={choice.name}
            data-chosen={i === at || undefined}
            style={{ paddingInlineStart: 8 + (choice.indent ?? 0) }}
            className="flex min-h-11 w-full cursor-default items-center gap-2.5 rounded-md pe-2 text-start hover:bg-base-200 data-chosen:bg-base-200"
            onClick={() => onPress(i)}
          >
            {choice.face}
          </Combo.Item>
        ))}
      </Combo.List>
      {choices.length === 0 && (
        // In the room of the list, which stays as high as it was.
        <p className="absolute py-3 text-quiet" style={{ marginTop: -height }}>
          {none ?? t`Nothing is called that.`}
        </p>
      )}
    </Combo.Root>
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
