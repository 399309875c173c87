import { t } from '@lingui/core/macro';
import { Fragment, type ReactNode } from 'react';
import { type Space, useSession } from '../server/session';
import type { Library } from '../data/Library';
import { useLibraries } from '../data/useLibrary';

/** A list that has a part for each library, the group's first. */
export function BySpace({
  title,
  children,
}: {
  title: string;
  children: (space: Space, library: Library) => ReactNode;
}) {
  const { spaces } = useSession();
  const libraries = useLibraries();
  return (
    <>
      <header className="border-b border-base-300 pb-3">
        <p className="text-quiet">{t`Library`}</p>
        <h1 className="text-[30px] leading-tight" data-testid="library-heading">
          {title}
        </h1>
      </header>
      {[...spaces]
        .sort((a, b) => Number(a.personal) - Number(b.personal))
        .map((space) => (
          <Fragment key={space.id}>{children(space, libraries.get(space.id)!)}</Fragment>
        ))}
    </>
  );
}
