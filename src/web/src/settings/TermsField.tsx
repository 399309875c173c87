import { PlusIcon, XIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { properties } from '../core/runtime';
import { attempt } from '../ui/naming';
import { root } from '../model/items';
import { useLibrary } from '../data/useLibrary';

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
            <span className="grow">{term.split('/').map(dayOf).join(' to ')}</span>
            {mayWrite && (
              <button
                type="button"
                aria-label={`Take out the term from ${term.split('/').map(dayOf).join(' to ')}`}
                title="Take out"
                className="grid size-10 place-items-center rounded-md hover:bg-base-200"
                onClick={() => put(terms.filter((one) => one !== term))}
              >
                <XIcon size={16} />
              </button>
            )}
          </li>
        ))}
        {terms.length === 0 && (
          <li className="py-2 text-quiet">
            None yet. Until then a term is a half-year, from February and from August.
          </li>
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
            <span className="mb-1 block font-semibold">First day</span>
            <input
              type="date"
              required
              className="field w-40"
              value={first}
              onChange={(event) => setFirst(event.target.value)}
            />
          </label>
          <label>
            <span className="mb-1 block font-semibold">Last day</span>
            <input
              type="date"
              required
              className="field w-40"
              value={last}
              onChange={(event) => setLast(event.target.value)}
            />
          </label>
          <button type="submit" className="quiet-button h-11 min-h-11">
            <PlusIcon size={16} /> Add a term
          </button>
        </form>
      )}
      <p role="alert" className="min-h-5 pt-1 text-error">
        {problem}
      </p>
    </div>
  );
}

function dayOf(key: string): string {
  return new Date(`${key}T12:00:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
}
