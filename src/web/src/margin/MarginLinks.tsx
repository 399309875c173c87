import { SignButton } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { GraphIcon, PencilSimpleIcon, XIcon } from '@phosphor-icons/react';
import { Link } from 'react-router';
import { useFollow } from '../links/useFollow';
import { sentenceOf } from '../core/runtime';
import { readTarget } from '../model/target';
import { RenameField } from '../ui/RenameField';
import { useHidden, useLinkWords } from '../links/useLinkWords';
import { openPath } from '../model/items';
import { aroundSpot, partPath, setSpotOn, type ShownSpot } from '../data/spots';
import type { PlacedSpot } from '../data/useNotebookSpots';
import { withoutNews } from '../data/useNews';
import { useIsGuest } from '../data/useShared';
import { useWorkspace } from '../data/useWorkspace';
import type { OpenNotebook } from '../data/openNotebooks';
import type { Notebook } from '../data/useNotebook';

/** Where this page leads, and what leads here, with a picture of the place. */
export function MarginLinks({
  at,
  notebook,
  links,
  mayWrite,
}: {
  at: OpenNotebook;
  notebook: Notebook;
  links: PlacedSpot[];
  mayWrite: boolean;
}) {
  const workspace = useWorkspace();
  const { follow, asking } = useFollow();
  const wordsOf = useLinkWords();
  const hidden = useHidden();
  // What leads here from elsewhere a guest is not told.
  const isGuest = useIsGuest(at.space);
  const [naming, setNaming] = useState('');
  const { data: here = [] } = useQuery({
    queryKey: ['backlinks', at.page],
    queryFn: () =>
      workspace.list<ShownSpot[]>(`/api/spaces/${at.space}/backlinks?notebook=${at.notebook}&page=${at.page}`),
    refetchOnMount: 'always',
    refetchInterval: withoutNews,
    enabled: !isGuest,
  });
  const { data: toNotebook = [] } = useQuery({
    queryKey: ['backlinks', at.notebook],
    queryFn: () => workspace.list<ShownSpot[]>(`/api/spaces/${at.space}/backlinks?notebook=${at.notebook}`),
    refetchOnMount: 'always',
    enabled: !isGuest,
  });
  return (
    <div className="min-h-0 grow overflow-y-auto p-3">
      <h3 className="border-b border-base-300 pb-1 text-[16px]">{t`This page leads to`}</h3>
      <ul data-testid="links-from-here">
        {links.map((link) => (
          <li key={link.id}>
            <div className="flex items-center border-b border-base-300">
              {naming === link.id ? (
                <RenameField
                  name={link.title ?? ''}
                  label={t`What the link is called`}
                  placeholder={t`As what it leads to`}
                  testId="link-name"
                  onRename={async (title) => {
                    try {
                      await setSpotOn(workspace, at.space, link.page, link.id, { title });
                      return '';
                    } catch (problem) {
                      return sentenceOf(problem);
                    }
                  }}
                  onEnd={() => setNaming('')}
                />
              ) : (
                <button
                  type="button"
                  data-testid="margin-link"
                  className="flex min-h-11 min-w-0 grow items-center text-start [overflow-wrap:anywhere] hover:bg-base-200"
                  onClick={() => void follow(link.target!, link.title)}
                >
                  {wordsOf(link)}
                </button>
              )}
              {mayWrite && naming !== link.id && hidden(readTarget(link.target ?? '')) === undefined && (
                <SignButton
                  label={t`Call the link to ${wordsOf(link)} otherwise`}
                  title={t`Call the link otherwise`}
                  data-testid="link-rename"
                  onClick={() => setNaming(link.id)}
                >
                  <PencilSimpleIcon size={16} />
                </SignButton>
              )}
              {mayWrite && (
                <SignButton
                  label={t`Take out the link to ${wordsOf(link)}`}
                  title={t`Take the link out`}
                  data-testid="link-remove"
                  onClick={() => void setSpotOn(workspace, at.space, link.page, link.id, { removed: '1' })}
                >
                  <XIcon size={16} />
                </SignButton>
              )}
            </div>
          </li>
        ))}
        {links.length === 0 && (
          <li className="py-2 text-quiet">{t`Nowhere yet. Select something with the loop and choose “Link”.`}</li>
        )}
      </ul>
      <h3 className="mt-5 border-b border-base-300 pb-1 text-[16px]">{t`What leads here`}</h3>
      <ul data-testid="backlinks">
        {[...here, ...toNotebook].map((spot) => (
          <li key={spot.id}>
            <Link
              to={`${openPath(spot.space, spot.notebook, spot.page)}?at=${Math.round((spot.area[0] + spot.area[2]) / 2)},${Math.round((spot.area[1] + spot.area[3]) / 2)}`}
              data-testid="backlink"
              className="block border-b border-base-300 py-2.5 hover:bg-base-200"
            >
              <img
                src={partPath(spot, aroundSpot(spot.area, 252, 56))}
                alt=""
                width={252}
                height={56}
                className="block border border-base-300 bg-paper"
              />
              <span className="mt-1 block font-semibold">
                {spot.notebook === at.notebook ? spot.pageTitle || t`Page ${spot.pageNumber}` : spot.notebookName}
              </span>
              <span className="text-[13px] text-quiet">
                {spot.target.startsWith('notebook:') || spot.target.startsWith('section:')
                  ? t`page ${spot.pageNumber}, to the notebook`
                  : t`page ${spot.pageNumber}`}
              </span>
            </Link>
          </li>
        ))}
        {here.length + toNotebook.length === 0 && <li className="py-2 text-quiet">{t`Nothing leads here yet.`}</li>}
      </ul>
      <Link to={`/web/${at.space}/${notebook.id}`} className="quiet-button mt-5 w-full" data-testid="open-web">
        <GraphIcon size={20} weight="light" /> {t`Web of pages`}
      </Link>
      {asking}
    </div>
  );
}
