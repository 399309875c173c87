import { t } from '@lingui/core/macro';
import { ColumnsPlusRightIcon } from '@phosphor-icons/react';
import { type RefObject, useMemo, useState } from 'react';
import { createPortal } from 'react-dom';
import type { Notebook } from '../data/useNotebook';
import { useWriters } from '../data/usePeople';
import { useWorkspace } from '../data/useWorkspace';
import type { NotebookEntry } from '../model/items';
import type { LongWorker } from '../sheet/blotter/longWork';
import type { View } from '../sheet/ink/view';
import type { OpenDocument } from '../sync/openDocument';
import { Toggle } from '../ui/Button';
import type { MenuEntry } from '../ui/Menu';
import { ChoosePart, type Part } from './ChoosePart';
import { sideColours } from './chart';
import { PastBar, ReadingPast } from './PastBar';
import { lastWords, momentWords } from './pastWords';
import { goTo, momentsOn, useNaming } from './moments';
import { usePast } from './usePast';
import { usePastActs } from './usePastActs';

interface HistoryPanelProps {
  notebook: Notebook;
  page: NotebookEntry;
  document: OpenDocument;
  view: View;
  /** What the sheet lies in. */
  over: RefObject<HTMLElement | null>;
  mayWrite: boolean;
  worker: LongWorker;
  /** The moment to begin with, UTC milliseconds; undefined for now. */
  from: number | undefined;
  /** What came back to the page. */
  onBack: (items: string[]) => void;
  /** A page was made of it. */
  onPage: (page: string) => void;
  onClose: () => void;
}

const noPeople: string[] = [];

/** The page as it was: a strip over the sheet, on which a needle is drawn along who wrote when; comparing, and having it back. */
export function HistoryPanel(props: HistoryPanelProps) {
  const { notebook, page, document, view, over, mayWrite, worker, from, onBack, onPage, onClose } = props;
  const { HistoryBridge } = useWorkspace().core;
  const past = usePast(document, from);
  const { chart } = past;
  const [compares, setCompares] = useState(false);
  const [sides, setSides] = useState({ added: true, removed: true });
  const [choosing, setChoosing] = useState(false);
  const [part, setPart] = useState<Part>();
  const naming = useNaming(notebook, past.time);
  const people = useWriters(document.space, notebook.id, chart?.people ?? noPeople);
  const words = chart ? momentWords(past.time, past.isNow) : '';
  const named = chart ? momentsOn(chart, notebook.moments) : [];
  const standing = named.findLast((moment) => moment.at <= past.time);
  const version = document.getVersion();
  // Moving the view asks for none of this anew.
  const [came = 0, went = 0, rubbed = 0, changed = 0] = useMemo(
    () => (compares ? HistoryBridge.Differences(document.handle) : []),
    [HistoryBridge, document, compares, past.count, version],
  );

  const go = (move: () => void) => {
    setPart(undefined);
    move();
  };
  const compare = (on: boolean, shown = sides) => {
    setCompares(on);
    setSides(shown);
    past.compare(on, shown.added, shown.removed);
  };
  const { haveBack, copy } = usePastActs({ document, notebook, page, worker, time: past.time, onBack, onPage });
  if (past.reading !== undefined || !chart) return <ReadingPast share={past.reading ?? 0} onClose={onClose} />;
  const more: MenuEntry[] = [
    ...(mayWrite
      ? [
          {
            label: t`A page of its own as it was`,
            testId: 'history-copy',
            icon: <ColumnsPlusRightIcon size={20} weight="light" />,
            onChoose: copy,
          },
          naming.entry,
        ]
      : []),
    ...goTo(named, (moment) => go(() => past.go(HistoryBridge.CountBy(document.handle, moment.at)))),
  ];
  return (
    <>
      {choosing &&
        over.current &&
        createPortal(<ChoosePart page={document} view={view} part={part} onPart={setPart} />, over.current)}
      <PastBar
        last={[
          ...(standing ? [`“${standing.name}”`] : []),
          lastWords(HistoryBridge.Last(document.handle, past.count), people),
        ].join(' · ')}
        isNow={past.isNow}
        compares={compares}
        onCompare={() => compare(!compares)}
        sides={
          <>
            <Side
              colour={sideColours.came}
              on={sides.added}
              testId="history-added"
              words={t`Came since: ${came + changed}`}
              onPress={() => compare(true, { ...sides, added: !sides.added })}
            />
            <Side
              colour={sideColours.gone}
              on={sides.removed}
              testId="history-removed"
              words={t`Gone since: ${went + rubbed + changed}`}
              onPress={() => compare(true, { ...sides, removed: !sides.removed })}
            />
          </>
        }
        {...(mayWrite
          ? {
              back: {
                words: part ? t`Have this back` : t`Have it back`,
                isReady: !choosing || part !== undefined,
                choosing,
                chooseWords: t`Choose a part`,
                onChoose: () => {
                  setChoosing(!choosing);
                  setPart(undefined);
                },
                onBack: () => haveBack(part?.items ?? []),
              },
            }
          : {})}
        more={more}
        onClose={onClose}
        strip={{
          label: t`Moment of the page`,
          chart,
          people,
          moments: named,
          placeOf: (time) =>
            HistoryBridge.Moment(document.handle, HistoryBridge.CountBy(document.handle, time))[0] ?? 0,
          count: past.count,
          position: past.position,
          words,
          onGo: (count) => go(() => past.go(count)),
          onSitting: (later) => go(() => past.go(HistoryBridge.Beside(document.handle, past.count, later))),
          onGoTo: (position) => go(() => past.goTo(position)),
        }}
      />
      {naming.dialog}
    </>
  );
}

/** One of the two sides of a comparison, shown or not. */
function Side(props: { colour: string; on: boolean; words: string; testId: string; onPress: () => void }) {
  return (
    <Toggle on={props.on} className="flex items-center gap-2 px-3" data-testid={props.testId} onClick={props.onPress}>
      <span aria-hidden="true" className="h-1 w-6 rounded-full" style={{ background: props.colour }} />
      {props.words}
    </Toggle>
  );
}
