import { useEffect, useRef, useState } from 'react';

interface SliderProps {
  label: string;
  value: number;
  min: number;
  max: number;
  step?: number;
  /** How the value is written beside the label. */
  words: (value: number) => string;
  testId: string;
  /** While it is dragged. */
  onDraft?: (value: number) => void;
  /** Once it is let go. */
  onValue: (value: number) => void;
}

/** A slider that tells its value when it is let go, so that dragging it is one change and not a hundred. What was dragged is told also when it goes away meanwhile. */
export function Slider({ label, value, min, max, step = 1, words, testId, onDraft, onValue }: SliderProps) {
  const [draft, setDraft] = useState(value);
  useEffect(() => setDraft(value), [value]);
  const field = useRef<HTMLInputElement>(null);
  // Whether it moved is kept here: who shows the draft moves the value along.
  const moved = useRef<number>(undefined);
  const tell = useRef(onValue);
  tell.current = onValue;
  useEffect(() => {
    const commit = () => {
      const to = moved.current;
      moved.current = undefined;
      if (to !== undefined) tell.current(to);
    };
    const { current } = field;
    // The browser's own event comes once: when it is let go, or with a key.
    current!.addEventListener('change', commit);
    return () => {
      current!.removeEventListener('change', commit);
      commit();
    };
  }, []);
  return (
    <label className="mt-2.5 block">
      <span className="flex justify-between">
        {label} <span className="text-[13px] text-quiet">{words(draft)}</span>
      </span>
      <input
        ref={field}
        type="range"
        min={min}
        max={max}
        step={step}
        value={draft}
        data-testid={testId}
        className="range range-primary range-xs mt-1 w-full"
        onChange={(event) => {
          const to = Number(event.target.value);
          moved.current = to;
          setDraft(to);
          onDraft?.(to);
        }}
      />
    </label>
  );
}
