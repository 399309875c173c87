import { may } from '../data/rights';
import { Button } from '../ui/Button';
import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import {
  ArrowsMergeIcon,
  DotsThreeIcon,
  FunnelSimpleIcon,
  PencilSimpleIcon,
  PlusIcon,
  SwatchesIcon,
  TrashIcon,
} from '@phosphor-icons/react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { doing, useAct } from '../data/doing';
import { properties } from '../core/runtime';
import type { Space } from '../server/session';
import { useWorkspace } from '../data/useWorkspace';
import { FormDialog, Problem } from '../ui/FormDialog';
import { Menu } from '../ui/Menu';
import { BySpace } from './BySpace';
import { ColourField } from '../ui/looks';
import { ConfirmDialog, NameDialog } from '../ui/naming';
import { root, type Tag } from '../model/items';
import { fillOf } from '../model/colours';
import type { Library } from '../data/Library';

type Asking =
  { what: 'new' } | { what: 'rename' | 'colour' | 'merge' | 'bin'; tag: Tag } | { what: 'join'; tag: Tag; into: Tag };

/** All tags of the libraries, nested: how often each is used, renaming, colour, merging two, and putting one into the bin. */
export function TagScreen() {
  return <BySpace title={t`Tags`}>{(space, library) => <TagsOf space={space} library={library} />}</BySpace>;
}

function TagsOf({ space, library }: { space: Space; library: Library }) {
  const workspace = useWorkspace();
  const navigate = useNavigate();
  const act = useAct();
  const [asking, setAsking] = useState<Asking>();
  const mayWrite = may(space, 'Write');
  const uses = useQuery({
    queryKey: ['tag-uses', space.id, library],
    queryFn: async () => {
      await workspace.outbox.settled().catch(() => {});
      return workspace.list<Record<string, number>>(`/api/spaces/${space.id}/tag-uses`);
    },
    queryKeyHashFn: () => `tag-uses ${space.id} ${library.nodes.size} ${library.tags.map((tag) => tag.path).join()}`,
    placeholderData: (before: Record<string, number> | undefined) => before,
  }).data;
  const usedBy = (tag: Tag) => tag.ids.reduce((sum, id) => sum + (uses?.[id] ?? 0), 0);
  const within = (tag: Tag) => library.tags.filter((one) => one === tag || one.path.startsWith(`${tag.path}/`));
  const { Fold } = workspace.core.LibraryBridge;
  const sameTag = (one: string, other: string) =>
    partsOf(one).map(Fold).join('/') === partsOf(other).map(Fold).join('/');
  const merge = (tag: Tag, into: Tag) =>
    doing(workspace, t`Merged “${tag.path}” into “${into.path}”.`, () =>
      tag.ids.forEach((id) => library.mergeTags(id, into.id)),
    );
  const words = (count: number) => plural(count, { one: '# use', other: '# uses' });
  return (
    <section className="pt-6" aria-label={space.name}>
      <div className="flex items-center border-b border-base-300 pb-2">
        <h2 className="grow text-[19px]">{space.name}</h2>
        {mayWrite && (
          <Button
            data-testid={`new-tag-${space.personal ? 'personal' : 'group'}`}
            onClick={() => setAsking({ what: 'new' })}
          >
            <PlusIcon size={16} /> {t`New tag`}
          </Button>
        )}
      </div>
      <ul>
        {library.tags.map((tag) => (
          <li
            key={tag.id}
            className="flex min-h-12 items-center gap-3 border-b border-base-300"
            data-testid="tag"
            data-name={tag.path}
            style={{ paddingLeft: (tag.path.split('/').length - 1) * 28 }}
          >
            <span className={`size-3 shrink-0 rounded-full ${fillOf[tag.colour] ?? 'bg-quiet'}`} />
            <span className="min-w-0 grow text-[15px] [overflow-wrap:anywhere]">{tag.name}</span>
            <span className="text-quiet" data-testid="tag-uses">
              {words(usedBy(tag))}
            </span>
            <Menu
              label={t`More for ${tag.path}`}
              testId="tag-menu"
              icon={<DotsThreeIcon size={24} />}
              entries={[
                {
                  label: t`Show what carries it`,
                  icon: <FunnelSimpleIcon size={20} weight="light" />,
                  testId: 'tag-show',
                  onChoose: () => void navigate(`/library/${space.id}?tag=${tag.id}`),
                },
                ...(mayWrite
                  ? [
                      {
                        label: t`Rename`,
                        icon: <PencilSimpleIcon size={20} weight="light" />,
                        testId: 'tag-rename',
                        onChoose: () => setAsking({ what: 'rename', tag }),
                      },
                      {
                        label: t`Colour`,
                        icon: <SwatchesIcon size={20} weight="light" />,
                        testId: 'tag-colour',
                        onChoose: () => setAsking({ what: 'colour', tag }),
                      },
                      {
                        label: t`Merge into another`,
                        icon: <ArrowsMergeIcon size={20} weight="light" />,
                        testId: 'tag-merge',
                        onChoose: () => setAsking({ what: 'merge', tag }),
                      },
                      {
                        label: t`Put into the bin`,
                        icon: <TrashIcon size={20} weight="light" />,
                        testId: 'tag-bin',
                        onChoose: () => setAsking({ what: 'bin', tag }),
                      },
                    ]
                  : []),
              ]}
            />
          </li>
        ))}
      </ul>
      {library.tags.length === 0 && (
        <p className="py-6 text-quiet">{t`No tags here yet. A tag can be put on notebooks, sections and pages, and nested with a slash: “exam/level 2”.`}</p>
      )}
      {asking?.what === 'new' && (
        <NameDialog
          title={t`New tag`}
          label={t`Name; nested ones with a slash`}
          confirm={t`Make the tag`}
          onConfirm={(path) => void library.tagAt(path)}
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking?.what === 'rename' && (
        <NameDialog
          title={t`Rename “${asking.tag.path}”`}
          confirm={t`Rename`}
          name={asking.tag.path}
          label={t`Name; nested ones with a slash`}
          onConfirm={(path) => {
            const other = library.tags.find((tag) => tag !== asking.tag && sameTag(tag.path, path));
            // Two tags of one name are one: that is asked first.
            if (other) return void setTimeout(() => setAsking({ what: 'join', tag: asking.tag, into: other }));
            return doing(workspace, t`“${asking.tag.path}” is “${path.trim()}” now.`, () =>
              rename(library, asking.tag, path),
            );
          }}
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking?.what === 'join' && (
        <ConfirmDialog
          title={t`“${asking.into.path}” is there already`}
          confirm={t`Merge the two`}
          onConfirm={() => merge(asking.tag, asking.into)}
          onClose={() => setAsking(undefined)}
        >
          <p data-testid="tag-joins">
            {plural(usedBy(asking.tag), {
              one: `# thing with “${asking.tag.path}” will carry “${asking.into.path}” instead.`,
              other: `# things with “${asking.tag.path}” will carry “${asking.into.path}” instead.`,
            })}
          </p>
        </ConfirmDialog>
      )}
      {asking?.what === 'colour' && (
        <TagColour
          tag={asking.tag}
          onConfirm={(colour) =>
            act(t`“${asking.tag.path}” has another colour.`, () =>
              asking.tag.ids.forEach((id) => library.set(id, properties.colour, colour)),
            )
          }
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking?.what === 'merge' && (
        <MergeDialog
          tag={asking.tag}
          tags={library.tags}
          uses={usedBy(asking.tag)}
          onMerge={(into) =>
            merge(
              asking.tag,
              library.tags.find((tag) => tag.id === into)!,
            )
          }
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking?.what === 'bin' && (
        <ConfirmDialog
          title={t`Put “${asking.tag.path}” into the bin`}
          confirm={t`Into the bin`}
          onConfirm={() =>
            act(t`Put “${asking.tag.path}” into the bin.`, () => asking.tag.ids.forEach((id) => library.toBin(id)))
          }
          onClose={() => setAsking(undefined)}
        >
          <p data-testid="tag-loses">
            {lossWords(within(asking.tag).reduce((sum, one) => sum + usedBy(one), 0))}{' '}
            {within(asking.tag).length > 1 && `${t`The ${within(asking.tag).length - 1} nested in it go with it.`} `}
            {t`It can be put back from the bin, and then stands on the same things again.`}
          </p>
        </ConfirmDialog>
      )}
    </section>
  );
}

function lossWords(count: number): string {
  return count === 0 ? t`Nothing carries it.` : plural(count, { one: '# thing loses it.', other: '# things lose it.' });
}

const partsOf = (path: string): string[] =>
  path
    .split('/')
    .map((part) => part.trim())
    .filter(Boolean);

/** A new path: the last part is its name, what comes before is the tag it is nested in. */
function rename(library: Library, tag: Tag, path: string): void {
  const parts = partsOf(path);
  const above = parts.slice(0, -1).join('/');
  const parent = above ? library.tagAt(above) : root;
  if (parent !== tag.parent) library.move(tag.id, parent);
  library.rename(tag.id, parts.at(-1) ?? '');
}

function TagColour({
  tag,
  onConfirm,
  onClose,
}: {
  tag: Tag;
  onConfirm: (colour: string) => void;
  onClose: () => void;
}) {
  const [colour, setColour] = useState(tag.colour);
  return (
    <ConfirmDialog
      title={t`Colour of “${tag.path}”`}
      confirm={t`Use this colour`}
      onConfirm={() => onConfirm(colour)}
      onClose={onClose}
    >
      <ColourField value={colour} onChange={setColour} />
    </ConfirmDialog>
  );
}

function MergeDialog({
  tag,
  tags,
  uses,
  onMerge,
  onClose,
}: {
  tag: Tag;
  tags: Tag[];
  uses: number;
  onMerge: (into: string) => void | Promise<void>;
  onClose: () => void;
}) {
  const others = tags.filter((one) => one !== tag);
  const [into, setInto] = useState(others[0]?.id ?? '');
  return (
    <FormDialog
      title={t`Merge “${tag.path}” into another`}
      confirm={t`Merge`}
      disabled={!into}
      onConfirm={() => onMerge(into)}
      onClose={onClose}
    >
      {(problem) => (
        <>
          <label className="block">
            <span className="mb-1 block font-semibold">{t`Into`}</span>
            <select
              className="select h-11 w-full border-base-300 bg-base-100"
              value={into}
              data-testid="merge-into"
              onChange={(event) => setInto(event.target.value)}
            >
              {others.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.path}
                </option>
              ))}
            </select>
          </label>
          <p className="mt-3 text-quiet">
            {plural(uses, {
              one: '# thing will carry the other tag instead.',
              other: '# things will carry the other tag instead.',
            })}
          </p>
          <Problem words={problem} testId="merge-problem" />
        </>
      )}
    </FormDialog>
  );
}
