import { t } from '@lingui/core/macro';
import { dateWords } from '../model/time';
import { sentenceOf } from '../core/runtime';
import { Button } from '../ui/Button';
import { say } from '../ui/saying';
import { AtTheDoor } from './AtTheDoor';
import { useDissolved, useGroupActs } from './groups';
import { MakeGroup } from './MakeGroup';

/** Where a group would stand, for somebody who is in none. */
export function NoGroup({ isMissing }: { isMissing: boolean }) {
  return (
    <div className="h-full overflow-y-auto">
      <div className="mx-auto max-w-[860px] px-10 pb-16 pt-7 max-sm:px-5" data-testid="no-group">
        <header className="flex flex-wrap items-end gap-2 border-b border-base-300 pb-4">
          <h1 className="grow text-[30px] leading-tight">
            {isMissing ? t`You are not in this group` : t`Write together`}
          </h1>
          <MakeGroup look="primary" />
        </header>
        <p className="max-w-[560px] pt-4 text-quiet">
          {t`A group keeps notebooks together: its people write in them, live, each seeing the others’ ink. Make one and send the others a link; whoever was given a link opens it, and is in.`}
        </p>
        <AtTheDoor />
        <Dissolved />
      </div>
    </div>
  );
}

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
