import { t } from '@lingui/core/macro';
import { PickField } from '../../ui/PickField';
import { Slider } from '../../ui/Slider';
import { numberWords } from '../../words/language';
import { families, type Family, sampleOf, styles, type Style } from './textStyles';

/** Kinds of paragraph, each set in itself. */
export function StyleChoice({
  value,
  family,
  testId,
  onValue,
}: {
  value: Style;
  family: Family;
  testId: string;
  onValue: (style: Style) => void;
}) {
  return (
    <div role="group" aria-label={t`Kind of paragraph`} className="grid grid-cols-2 gap-1">
      {styles().map(({ value: style, words }) => (
        <button
          key={style}
          type="button"
          aria-pressed={value === style}
          data-testid={`${testId}-${style || 'body'}`}
          onClick={() => onValue(style)}
          className={`h-11 truncate rounded-md border px-1.5 text-start ${value === style ? 'border-primary bg-base-200' : 'border-transparent hover:border-base-300'}`}
          style={sampleOf(style, family)}
        >
          {words}
        </button>
      ))}
    </div>
  );
}

/** Height of the type, 0.1 pt. */
export function TypeSize({
  value,
  testId,
  onValue,
}: {
  value: number;
  testId: string;
  onValue: (tenths: number) => void;
}) {
  return (
    <Slider
      label={t`Size`}
      value={value}
      min={60}
      max={480}
      step={5}
      testId={testId}
      words={(tenths) => `${numberWords(tenths / 10, 1)} pt`}
      onValue={onValue}
    />
  );
}

/** Typefaces; undefined where several differ. */
export function Typeface({
  value,
  testId,
  onValue,
}: {
  value: string | undefined;
  testId: string;
  onValue: (family: Family) => void;
}) {
  return (
    <PickField
      label={t`Typeface`}
      testId={testId}
      value={value}
      onValue={(family) => onValue(family as Family)}
      options={families().map(({ value: family, words }) => [family, words])}
    />
  );
}
