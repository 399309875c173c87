import { useEffect, useState } from 'react';

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

/** A slider that tells its value when it is let go, so that dragging it is one change and not a hundred. */
export function Slider({ label, value, min, max, step = 1, words, testId, onDraft, onValue }: SliderProps) {
  const [draft, setDraft] = useState(value);
  useEffect(() => setDraft(value), [value]);
  const commit = () => draft !== value && onValue(draft);
  return (
    <label className="mt-2.5 block">
      <span className="flex justify-between">
        {label} <span className="text-[13px] text-quiet">{words(draft)}</span>
      </span>
      <input
        type="range"
        min={min}
        max={max}
        step={step}
        value={draft}
        data-testid={testId}
        className="range range-primary range-xs mt-1 w-full"
        onChange={(event) => {
          setDraft(Number(event.target.value));
          onDraft?.(Number(event.target.value));
        }}
        onPointerUp={commit}
        onKeyUp={commit}
        onBlur={commit}
      />
    </label>
  );
}
