import { t } from '@lingui/core/macro';
import { ArrowsOutLineHorizontalIcon } from '@phosphor-icons/react';
import { useEffect, useState } from 'react';
import { Button } from '../../ui/Button';
import { Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import type { EvenWish, Selection } from './useSelection';

/** Even lines, seen before they are kept. */
export function EvenPanel({ selection, onDone }: { selection: Selection; onDone: () => void }) {
  const [wish, setWish] = useState<EvenWish>({ strength: 0.8, words: true, height: false });
  const { strength, words, height } = wish;
  useEffect(() => {
    selection.previewEven({ strength, words, height });
    return () => selection.previewEven(undefined);
    // The selection is a new object at every drawing; what is seen depends on the wish alone.
  }, [strength, words, height]);
  return (
    <section
      aria-label={t`Even lines`}
      data-testid="even-panel"
      className="w-[260px] rounded-lg border border-base-300 bg-base-100 p-3 shadow-md"
    >
      <Slider
        label={t`How much`}
        value={Math.round(strength * 100)}
        min={0}
        max={100}
        step={5}
        testId="even-strength"
        words={(share) => `${share} %`}
        onDraft={(share) => setWish({ ...wish, strength: share / 100 })}
        onValue={(share) => setWish({ ...wish, strength: share / 100 })}
      />
      <Switch
        label={t`Even gaps between words`}
        on={words}
        testId="even-words"
        onChange={(on) => setWish({ ...wish, words: on })}
      />
      <Switch
        label={t`Level the height`}
        on={height}
        testId="even-height"
        onChange={(on) => setWish({ ...wish, height: on })}
      />
      <div className="mt-2 flex gap-2">
        <Button
          look="primary"
          className="grow"
          data-testid="even-keep"
          onClick={() => {
            selection.even(wish);
            onDone();
          }}
        >
          <ArrowsOutLineHorizontalIcon size={18} /> {t`Keep`}
        </Button>
        <Button look="plain" onClick={onDone}>{t`Leave as it is`}</Button>
      </div>
    </section>
  );
}
