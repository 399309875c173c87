import { may } from '../data/rights';
import { Button } from '../ui/Button';
import { plural, t } from '@lingui/core/macro';
import { ArrowsClockwiseIcon, DotsThreeIcon, PencilSimpleIcon, TagIcon, TrashIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { properties } from '../core/runtime';
import { NameDialog } from '../ui/naming';
import type { LibraryNode } from '../model/items';
import { say } from '../ui/saying';
import { useAct } from '../data/doing';
import { useLibrary } from '../data/useLibrary';
import { useSession } from '../server/session';
import { Menu } from '../ui/Menu';
import { ownPapersOf, usePaperUses } from '../data/ownPapers';
import { OwnPaperDialog } from './OwnPaperDialog';
import { PaperPicture } from './PaperPicture';

type Asking = { what: 'new' } | { what: 'rename' | 'category' | 'replace'; node: LibraryNode };

/** The papers of one's own: from pictures, PDF pages and pages, with how many pages lie on each. */
export function PapersScreen() {
  const { space = '' } = useParams();
  const { spaces } = useSession();
  const library = useLibrary(space);
  const act = useAct();
  const uses = usePaperUses(space);
  const navigate = useNavigate();
  const [asking, setAsking] = useState<Asking>();
  const own = spaces.find((one) => one.id === space);
  if (!library || !own) return <p className="p-10">{t`There is nothing here that you may see.`}</p>;
  const papers = ownPapersOf(library);
  const categories = [...new Set(papers.map((node) => node.category ?? ''))];
  const mayWrite = may(own, 'Write');
  return (
    <div className="relative h-full overflow-y-auto px-10 pb-12 pt-6 max-sm:px-4" data-testid="papers">
      <header className="flex items-end gap-2 border-b border-base-300 pb-3">
        <div className="grow">
          <p className="text-quiet">{own.name}</p>
          <h1 className="text-[30px] leading-tight">{t`Papers of your own`}</h1>
        </div>
        <Button onClick={() => void navigate(-1)}>{t`Back`}</Button>
        {mayWrite && (
          <Button
            look="primary"
            data-testid="new-paper"
            onClick={() => setAsking({ what: 'new' })}
          >{t`New paper`}</Button>
        )}
      </header>
      {papers.length === 0 && (
        <p className="py-8 text-quiet">{t`None yet. A picture, a page of a PDF file or any page of a notebook can be a paper. In a notebook’s overview, choose “Make it a paper”.`}</p>
      )}
      {categories.map((category) => (
        <section key={category} aria-label={category || t`Papers`} className="pt-6">
          {(category || categories.length > 1) && (
            <h2 className="mb-3 border-b border-base-300 pb-1 text-[19px]">{category || t`Others`}</h2>
          )}
          <ul className="flex flex-wrap gap-8">
            {papers
              .filter((node) => (node.category ?? '') === category)
              .map((node) => (
                <li key={node.id} className="w-[150px]" data-testid="own-paper" data-name={node.name}>
                  <PaperPicture paper={paperOf(node)} width={150} space={space} />
                  <div className="flex items-start pt-1.5">
                    <p className="min-w-0 grow leading-tight">
                      <span className="[overflow-wrap:anywhere]">{node.name}</span>
                      <span className="block text-[13px] text-quiet" data-testid="paper-uses">
                        {plural(uses[node.id] ?? 0, { one: 'on # page', other: 'on # pages' })}
                      </span>
                    </p>
                    {mayWrite && (
                      <Menu
                        label={t`More for ${node.name}`}
                        testId="own-paper-menu"
                        icon={<DotsThreeIcon size={20} />}
                        entries={[
                          {
                            label: t`Rename`,
                            icon: <PencilSimpleIcon size={20} weight="light" />,
                            onChoose: () => setAsking({ what: 'rename', node }),
                          },
                          {
                            label: t`Category`,
                            icon: <TagIcon size={20} weight="light" />,
                            onChoose: () => setAsking({ what: 'category', node }),
                          },
                          {
                            label: t`Replace`,
                            testId: 'replace-paper',
                            icon: <ArrowsClockwiseIcon size={20} weight="light" />,
                            onChoose: () => setAsking({ what: 'replace', node }),
                          },
                          {
                            label: t`Put into the bin`,
                            icon: <TrashIcon size={20} weight="light" />,
                            onChoose: () =>
                              act(t`Put “${node.name}” into the bin. Pages that lie on it keep it.`, () =>
                                library.toBin(node.id),
                              ),
                          },
                        ]}
                      />
                    )}
                  </div>
                </li>
              ))}
          </ul>
        </section>
      ))}
      {asking?.what === 'new' && <OwnPaperDialog library={library} onSay={say} onClose={() => setAsking(undefined)} />}
      {asking?.what === 'replace' && (
        <OwnPaperDialog library={library} replaced={asking.node} onSay={say} onClose={() => setAsking(undefined)} />
      )}
      {asking?.what === 'rename' && (
        <NameDialog
          title={t`Name of the paper`}
          confirm={t`Rename it`}
          name={asking.node.name}
          onConfirm={(name) => library.rename(asking.node.id, name)}
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking?.what === 'category' && (
        <NameDialog
          title={t`Category of the paper`}
          confirm={t`Put it there`}
          label={t`Category`}
          name={asking.node.category ?? ''}
          onConfirm={(name) => library.set(asking.node.id, properties.category, name.trim())}
          onClose={() => setAsking(undefined)}
        />
      )}
    </div>
  );
}

function paperOf(node: LibraryNode): string {
  return `a4-blank-710-own.${node.id.replaceAll('-', '')}`;
}
