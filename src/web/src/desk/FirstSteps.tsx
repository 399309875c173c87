import { t } from '@lingui/core/macro';
import { FilePdfIcon, NotebookIcon, UsersThreeIcon, XIcon } from '@phosphor-icons/react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { Personal } from '../data/usePersonal';
import { useSession } from '../server/session';
import { MakeGroup } from '../group/MakeGroup';
import { SignButton } from '../ui/Button';

/** What somebody new does first: a notebook, the others, and what was written before. It stands on the empty Desk until it is put away, and never comes back. */
export function FirstSteps({ personal }: { personal: Personal }) {
  const { spaces } = useSession();
  const group = spaces.find((space) => !space.personal);
  const own = spaces.find((space) => space.personal)!;
  return (
    <section
      aria-label={t`First steps`}
      data-testid="first-steps"
      className="relative mt-5 border-b border-base-300 pb-7"
    >
      <ol className="grid grid-cols-3 gap-x-10 gap-y-6 pe-12 max-lg:grid-cols-1">
        <Step
          icon={<NotebookIcon size={30} weight="thin" />}
          title={t`A first notebook`}
          about={t`Choose its cover and paper, and write. All that you write is kept on this device first, then sent.`}
        >
          <Link to={`/library/${own.id}?new=notebook`} className="quiet-button" data-testid="step-notebook">
            {t`New notebook`}
          </Link>
        </Step>
        <Step
          icon={<UsersThreeIcon size={30} weight="thin" />}
          title={t`The others`}
          about={
            group
              ? t`You write with ${group.name}: its notebooks stand in the library, and you see each other’s ink as it is written.`
              : t`Make a group and send the others a link. Whoever opens it is in, and you write on one page together.`
          }
        >
          {group ? (
            <Link to={`/library/${group.id}`} className="quiet-button" data-testid="step-group">
              {t`Its notebooks`}
            </Link>
          ) : (
            <MakeGroup />
          )}
        </Step>
        <Step
          icon={<FilePdfIcon size={30} weight="thin" />}
          title={t`What you have already`}
          about={t`A picture or a page of a PDF file can lie under a page of yours, to be written on.`}
        >
          <Link to={`/papers/${own.id}`} className="quiet-button" data-testid="step-papers">
            {t`Bring it in as a paper`}
          </Link>
        </Step>
      </ol>
      <SignButton
        label={t`Put the first steps away`}
        className="absolute end-0 top-0"
        data-testid="steps-away"
        onClick={() => personal.setHabits({ stepsPutAway: true })}
      >
        <XIcon size={18} />
      </SignButton>
    </section>
  );
}

function Step({
  icon,
  title,
  about,
  children,
}: {
  icon: ReactNode;
  title: string;
  about: string;
  children: ReactNode;
}) {
  return (
    <li className="flex flex-col items-start">
      <span className="text-primary">{icon}</span>
      <h2 className="mt-2 text-[18px]">{title}</h2>
      <p className="mb-3 mt-1 grow text-quiet">{about}</p>
      {children}
    </li>
  );
}
