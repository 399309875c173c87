import { Toggle } from '../ui/Button';
import { plural, t } from '@lingui/core/macro';
import { PaperField } from '../papers/PaperField';
import { PaperPicture } from '../papers/PaperPicture';
import { type Chosen, type Kind, kinds } from './choice';

/** The kinds of pages a planner may have, each with the papers made for it. */
export function KindList({
  chosen,
  counts,
  onChange,
}: {
  chosen: Chosen;
  counts: Partial<Record<Kind, number>> | undefined;
  onChange: (by: Partial<Chosen>) => void;
}) {
  return (
    <ul>
      {kinds.map(({ kind, words, papers }) => {
        const on = chosen.kinds.includes(kind);
        return (
          <li key={kind} className="flex min-h-[76px] flex-wrap items-center gap-4 border-b border-base-300 py-2">
            <span className={`grid w-[58px] shrink-0 place-items-center ${on ? '' : 'opacity-40'}`}>
              <PaperPicture paper={chosen.papers[kind]} width={58} height={58} />
            </span>
            <label className="flex min-h-10 w-36 shrink-0 cursor-pointer items-center gap-2.5 text-[15px]">
              <input
                type="checkbox"
                className="checkbox checkbox-sm checkbox-primary"
                checked={on}
                data-testid={`planner-${kind}`}
                onChange={() =>
                  onChange({ kinds: on ? chosen.kinds.filter((one) => one !== kind) : [...chosen.kinds, kind] })
                }
              />
              <span>
                {words}
                <span className="block text-[13px] text-quiet">
                  {on && counts?.[kind] ? plural(counts[kind], { one: '# page', other: '# pages' }) : ' '}
                </span>
              </span>
            </label>
            {papers.length > 0 ? (
              <div className="flex flex-wrap gap-1.5">
                {papers.map((one) => (
                  <Toggle
                    on={chosen.papers[kind] === one.paper}
                    key={one.paper}
                    disabled={!on}
                    data-testid={`style-${one.paper}`}
                    onClick={() => onChange({ papers: { ...chosen.papers, [kind]: one.paper } })}
                  >
                    {one.words}
                  </Toggle>
                ))}
              </div>
            ) : (
              <div className="min-w-56">
                <PaperField
                  label={t`Paper of the notes`}
                  isLabelHidden
                  value={chosen.papers[kind]}
                  disabled={!on}
                  testId="planner-notes-paper"
                  onChange={(paper) => onChange({ papers: { ...chosen.papers, [kind]: paper } })}
                />
              </div>
            )}
          </li>
        );
      })}
    </ul>
  );
}
