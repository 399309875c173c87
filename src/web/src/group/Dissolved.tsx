import { t } from '@lingui/core/macro';
import { sentenceOf } from '../core/runtime';
import { dateWords } from '../model/time';
import { Button } from '../ui/Button';
import { say } from '../ui/saying';
import { useDissolved, useGroupActs } from './groups';

/** Groups that can be had back. */
export function Dissolved() {
  const groups = useDissolved();
  const { haveBack } = useGroupActs();
  if (groups.length === 0) return null;
  return (
    <section aria-label={t`Dissolved groups`}>
      <h2 className="mt-10 border-b border-base-300 pb-2 text-[20px]">{t`Dissolved groups`}</h2>
      <ul>
        {groups.map((group) => (
          <li
            key={group.id}
            className="flex items-center gap-4 border-b border-base-300 py-3"
            data-testid="dissolved-group"
          >
            <div className="min-w-0 grow">
              <p className="truncate font-title text-[18px]">{group.name}</p>
              <p className="text-[13px] text-quiet">{t`can be had back until ${dateWords(new Date(group.until))}`}</p>
            </div>
            <Button
              data-testid="have-group-back"
              onClick={() => void haveBack(group.id).catch((problem: unknown) => say(sentenceOf(problem)))}
            >{t`Have it back`}</Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
