import { Button } from '../ui/Button';
import { plural, t } from '@lingui/core/macro';
import { useEffect, useState } from 'react';
import { type Core, isPaper } from '../core/runtime';
import type { Library } from '../data/Library';
import { useLibraries } from '../data/useLibrary';
import { keepPiece } from '../sheet/selection/clipboard';
import { idOf } from '../sync/address';
import type { RefusedWork } from '../sync/deviceStore';
import { framed } from '../sync/frames';
import { fileOf, saveFile } from '../sync/rescue';
import { useSession } from '../server/session';
import { useWorkspace } from '../data/useWorkspace';
import { Dialog } from '../ui/Dialog';
import { whenWords } from '../model/time';

/** What was refused of one document for one reason. */
interface Group {
  document: string;
  name: string;
  sentence: string;
  about: string;
  rows: RefusedWork[];
  /** The ink among it, to be laid down elsewhere; empty when there is none. */
  piece: Uint8Array;
}

/** What the server did not take: seen, copied, sent again, saved as a file, or let go. */
export function RefusedDialog({ onClose }: { onClose: () => void }) {
  const { core, outbox } = useWorkspace();
  const { person } = useSession();
  const libraries = useLibraries();
  const [groups, setGroups] = useState<Group[]>();
  const [said, setSaid] = useState('');
  const [letting, setLetting] = useState<string>();
  const read = async () => setGroups(groupsOf(core, libraries, await outbox.refusedWork()));
  useEffect(() => void read(), [outbox]);
  useEffect(() => {
    if (groups?.length === 0) onClose();
  }, [groups]);
  const act = async (words: string, action: () => Promise<void> | void) => {
    await action();
    setSaid(words);
    await read();
  };
  return (
    <Dialog title={t`What was not taken`} onClose={onClose} wide>
      <p className="mb-4 max-w-[62ch] text-quiet">{t`The server refused these changes, so they are on this device only, and the pages show what they were without them.`}</p>
      <ul className="divide-y divide-base-300 border-y border-base-300" data-testid="refused-list">
        {groups?.map((group) => {
          const key = `${group.document} ${group.sentence}`;
          return (
            <li key={key} className="flex flex-wrap items-center gap-x-6 gap-y-2 py-3">
              <div className="min-w-[240px] grow">
                <p className="font-semibold">{group.name}</p>
                <p>
                  {group.about}
                  {group.rows[0]!.at ? `, ${whenWords(group.rows[0]!.at)}` : ''}. {group.sentence}
                </p>
              </div>
              <div className="flex flex-wrap gap-2">
                {group.piece.length > 0 && (
                  <Button
                    data-testid="refused-copy"
                    onClick={() =>
                      void act(t`Copied. It can be laid down on any page.`, () =>
                        keepPiece(core, group.piece, group.rows[0]!.space),
                      )
                    }
                  >{t`Copy the ink`}</Button>
                )}
                <Button
                  data-testid="refused-again"
                  onClick={() => void act(t`It is sent again.`, () => outbox.putBack(group.rows))}
                >{t`Put it back`}</Button>
                {letting === key ? (
                  <Button
                    className="text-error"
                    data-testid="refused-drop-sure"
                    onClick={() => void act(t`Let go.`, () => outbox.dropRefused(group.rows))}
                  >{t`Yes, let it go for good`}</Button>
                ) : (
                  <Button data-testid="refused-drop" onClick={() => setLetting(key)}>{t`Let it go`}</Button>
                )}
              </div>
            </li>
          );
        })}
      </ul>
      <div className="mt-5 flex flex-wrap items-center justify-between gap-3">
        <p role="status" className="min-h-5 text-success" data-testid="refused-said">
          {said}
        </p>
        <div className="flex gap-2">
          <Button
            onClick={() =>
              void outbox
                .refusedWork()
                .then((rows) => saveFile('calm-quill-not-taken.json', JSON.stringify(fileOf(person.id, rows), null, 1)))
            }
          >{t`Save as a file`}</Button>
          <Button look="primary" onClick={onClose}>{t`Done`}</Button>
        </div>
      </div>
    </Dialog>
  );
}

function groupsOf(core: Core, libraries: Map<string, Library>, rows: RefusedWork[]): Group[] {
  const byKey = new Map<string, RefusedWork[]>();
  for (const row of rows) {
    const key = `${row.document} ${row.sentence}`;
    byKey.set(key, [...(byKey.get(key) ?? []), row]);
  }
  return [...byKey.values()].map((group) => {
    const { document, space, kind, sentence } = group[0]!;
    const notebook = libraries.get(space)?.find(idOf(document))?.name;
    const batches = framed(group.map((row) => row.bytes));
    return {
      document,
      sentence,
      rows: group,
      name:
        kind === 'page'
          ? t`On a page`
          : kind === 'aside'
            ? t`On an aside`
            : kind === 'notebook'
              ? notebook
                ? t`In “${notebook}”`
                : t`In a notebook`
              : t`In the library`,
      about: aboutWords(JSON.parse(core.DocumentBridge.About(batches)) as Counted[]),
      piece: isPaper(kind) ? core.DocumentBridge.PieceOf(batches) : new Uint8Array(),
    };
  });
}

interface Counted {
  word: string;
  count: number;
}

function aboutWords(counted: Counted[]): string {
  const words = counted.map(({ word, count }) => (manyOf[word] ?? other)(count)).join(', ');
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** What Core calls what a change is about, so many of it. */
const manyOf: Record<string, (count: number) => string> = {
  stroke: (count) => plural(count, { one: '# stroke', other: '# strokes' }),
  shape: (count) => plural(count, { one: '# shape', other: '# shapes' }),
  answer: (count) => plural(count, { one: '# answer', other: '# answers' }),
  'mark or link': (count) => plural(count, { one: '# mark or link', other: '# marks or links' }),
  'thing put in its place': (count) =>
    plural(count, { one: '# thing put in its place', other: '# things put in their places' }),
  'thing that cannot be read': (count) =>
    plural(count, { one: '# thing that cannot be read', other: '# things that cannot be read' }),
  name: (count) => plural(count, { one: '# name', other: '# names' }),
  tag: (count) => plural(count, { one: '# tag', other: '# tags' }),
  layer: (count) => plural(count, { one: '# layer', other: '# layers' }),
};

const other = (count: number) => plural(count, { one: '# change', other: '# changes' });
