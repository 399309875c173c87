import { Button, SignButton } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { PlusIcon, XIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { properties } from '../core/runtime';
import { attempt } from '../ui/naming';
import { root } from '../model/items';
import { useLibrary } from '../data/useLibrary';
import { calendarDayWords } from '../model/time';

/** The terms of a library, each by its first and last day: what “this term” goes by. */
export function TermsField({ space, mayWrite }: { space: string; mayWrite: boolean }) {
  const library = useLibrary(space);
  const [first, setFirst] = useState('');
  const [last, setLast] = useState('');
  const [problem, setProblem] = useState('');
  if (!library) return null;
  const terms = (library.registers(properties.terms)[root] ?? '').split(' ').filter(Boolean);
  const put = (changed: string[]) => {
    const refused = attempt(() => library.set(root, properties.terms, changed.toSorted().join(' ')));
    setProblem(refused);
    return !refused;
  };
  return (
    <div data-testid="terms">
      <ul>
        {terms.map((term) => (
          <li key={term} className="flex min-h-11 items-center gap-2 border-b border-base-300">
            <span className="grow">{termWords(term)}</span>
            {mayWrite && (
              <SignButton
                label={t`Take out the term from ${termWords(term)}`}
                title={t`Take out`}
                onClick={() => put(terms.filter((one) => one !== term))}
              >
                <XIcon size={16} />
              </SignButton>
            )}
          </li>
        ))}
        {terms.length === 0 && (
          <li className="py-2 text-quiet">{t`None yet. Until then a term is a half-year, from February and from August.`}</li>
        )}
      </ul>
      {mayWrite && (
        <form
          className="mt-3 flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (!put([...terms, `${first}/${last}`])) return;
            setFirst('');
            setLast('');
          }}
        >
          <label>
            <span className="mb-1 block font-semibold">{t`First day`}</span>
            <input
              type="date"
              required
              className="field w-40"
              value={first}
              onChange={(event) => setFirst(event.target.value)}
            />
          </label>
          <label>
            <span className="mb-1 block font-semibold">{t`Last day`}</span>
            <input
              type="date"
              required
              className="field w-40"
              value={last}
              onChange={(event) => setLast(event.target.value)}
            />
          </label>
          <Button type="submit">
            <PlusIcon size={16} /> {t`Add a term`}
          </Button>
        </form>
      )}
      <p role="alert" className="min-h-5 pt-1 text-error">
        {problem}
      </p>
    </div>
  );
}

/** A term in words: from its first day to its last. */
function termWords(term: string): string {
  const [first, last] = term.split('/').map(dayOf);
  return t`${first ?? ''} to ${last ?? ''}`;
}

function dayOf(key: string): string {
  return calendarDayWords(key);
}
