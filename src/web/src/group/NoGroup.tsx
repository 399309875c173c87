import { t } from '@lingui/core/macro';
import { AtTheDoor } from './AtTheDoor';
import { Dissolved } from './Dissolved';
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
