import { t } from '@lingui/core/macro';
import { useEffect, useId, useRef } from 'react';
import type { ShownFormula } from '../../../core/formulaBridge';
import type { OpenDocument } from '../../../sync/openDocument';
import { PickField } from '../../../ui/PickField';
import { Switch } from '../../../ui/Segments';
import { sentenceTold } from '../../../words/sentences';
import { showsField, useItemFields } from '../../hand/useItemFields';
import { useSource } from './useSource';

interface FormulaPanelProps {
  page: OpenDocument;
  item: string;
  formula: ShownFormula;
}

/** The field of the letter that it is worked out for, by its number in Core. */
const letterFor = 44;

const tasks = (): [string, string][] => [
  ['', t`it is only shown`],
  ['value', t`it is worked out`],
  ['solve', t`it is solved`],
  ['simplify', t`it is written more simply`],
  ['derive', t`its derivative`],
  ['integrate', t`its integral`],
];

/** What is hard to find on a keyboard: how it looks, what is typed for it, and where the caret then stands in that. */
const pieces = (): { sign: string; name: string; typed: string; caret: number }[] => [
  { sign: 'a⁄b', name: t`Fraction`, typed: '()/()', caret: 1 },
  { sign: '√', name: t`Root`, typed: 'sqrt()', caret: 5 },
  { sign: 'xⁿ', name: t`Power`, typed: '^', caret: 1 },
  { sign: 'xₙ', name: t`Lowered`, typed: '_', caret: 1 },
  { sign: '·', name: t`Times`, typed: '·', caret: 1 },
  { sign: '±', name: t`Plus or minus`, typed: '±', caret: 1 },
  { sign: '≤', name: t`At most`, typed: '≤', caret: 1 },
  { sign: 'π', name: t`Pi`, typed: 'π', caret: 1 },
  { sign: '∑', name: t`Sum`, typed: 'sum_(k=1)^n ', caret: 12 },
  { sign: '∫', name: t`Integral`, typed: 'int_0^1  dx', caret: 8 },
];

/** What a formula is made of, typed in a field beside it, and what is done with it. */
export function FormulaPanel({ page, item, formula }: FormulaPanelProps) {
  const field = useRef<HTMLTextAreaElement>(null);
  const told = useId();
  const source = useSource(field, page, item, formula.text);
  const { set, words, turn } = useItemFields(page, item, formula.shows);
  const task = tasks().find(([word]) => word && words.includes(word))?.[0] ?? '';
  const ask = (next: string) =>
    set(showsField, [next, ...words.filter((word) => word !== task)].filter(Boolean).join(' '));
  // What was just laid down waits to be typed.
  useEffect(() => {
    if (!formula.text) field.current?.focus({ preventScroll: true });
  }, [item]);

  const insert = (typed: string, caret: number) => {
    const { current } = field;
    if (!current) return;
    current.focus({ preventScroll: true });
    const { selectionStart: from, selectionEnd: to, value } = current;
    const taken = value.slice(from, to);
    // What is selected goes into the first bracket.
    const at = typed.startsWith('(') || typed.endsWith('()') ? typed.indexOf('(') + 1 : 0;
    const whole = taken && at ? typed.slice(0, at) + taken + typed.slice(at) : typed;
    source.change(value.slice(0, from) + whole + value.slice(to));
    const stands = from + (taken && at ? at + taken.length : caret);
    requestAnimationFrame(() => {
      current.setSelectionRange(stands, stands);
      source.select();
    });
  };

  const problem = formula.problem && sentenceTold(formula.problem);
  return (
    <section
      aria-label={t`Formula`}
      data-testid="formula-panel"
      className="grid w-[600px] max-w-[calc(100vw-16px)] gap-x-5 rounded-lg border border-base-300 bg-base-100 p-3 shadow-md sm:grid-cols-[minmax(0,1fr)_236px]"
    >
      <div>
        <textarea
          ref={field}
          aria-label={t`Formula, a line each`}
          aria-describedby={told}
          data-testid="formula-source"
          className="field block w-full py-2 font-mono text-[15px] leading-6"
          rows={Math.min(6, Math.max(2, formula.text.split('\n').length))}
          spellCheck={false}
          autoCapitalize="off"
          autoComplete="off"
          placeholder="T = 2 pi sqrt(L/g)"
          value={formula.text}
          onFocus={source.begin}
          onBlur={source.end}
          onSelect={source.select}
          onChange={(event) => source.change(event.target.value)}
        />
        <div role="group" aria-label={t`Signs`} className="mt-1.5 grid grid-cols-5 gap-1">
          {pieces().map(({ sign, name, typed, caret }) => (
            <button
              key={name}
              type="button"
              title={name}
              data-testid={`formula-sign-${typed.replace(/\W/g, '') || sign}`}
              className="grid h-11 place-items-center rounded-md border border-base-300 font-serif text-[17px] hover:bg-base-200"
              // The caret stays in the field.
              onPointerDown={(event) => event.preventDefault()}
              onClick={() => insert(typed, caret)}
            >
              <span aria-hidden="true">{sign}</span>
              <span className="sr-only">{name}</span>
            </button>
          ))}
        </div>
        <ul className="sr-only" data-testid="formula-lines">
          {formula.lines.map((line, at) => (
            <li key={at}>{line}</li>
          ))}
        </ul>
      </div>
      <div>
        <div className="flex gap-2">
          <div className="min-w-0 grow">
            <PickField label={t`What comes of it`} testId="formula-task" value={task} onValue={ask} options={tasks()} />
          </div>
          {formula.letters.length > 1 && (
            <div className="w-[72px] shrink-0">
              <PickField
                label={t`for`}
                testId="formula-letter"
                value={formula.letter}
                onValue={(letter) => set(letterFor, letter)}
                options={formula.letters.map((letter) => [letter, letter])}
              />
            </div>
          )}
        </div>
        {task !== '' && task !== 'simplify' && (
          <Switch
            label={t`With how it was done`}
            on={words.includes('steps')}
            testId="formula-steps"
            onChange={(on) => turn('steps', on)}
          />
        )}
        <Switch
          label={t`Angles in degrees`}
          on={words.includes('degrees')}
          testId="formula-degrees"
          onChange={(on) => turn('degrees', on)}
        />
      </div>
      <p id={told} className="col-span-full mt-1.5 text-[13px]" aria-live="polite">
        {problem ? (
          <span className="text-error" data-testid="formula-problem">
            {problem}
          </span>
        ) : formula.told ? (
          <span data-testid="formula-told">{sentenceTold(formula.told)}</span>
        ) : (
          <span className="text-quiet">
            {t`1/2x is one over two x, 1/2 x half an x. Behind a blank stands a unit: 9.81 m/s^2. LaTeX is read too.`}
          </span>
        )}
      </p>
    </section>
  );
}
