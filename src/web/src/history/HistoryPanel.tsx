import { t } from '@lingui/core/macro';
import {
  ArrowUUpLeftIcon,
  ColumnsPlusRightIcon,
  DotsThreeIcon,
  FlagBannerIcon,
  SelectionIcon,
  XIcon,
} from '@phosphor-icons/react';
import { type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import type { Moment, Notebook } from '../data/useNotebook';
import { useWriters } from '../data/usePeople';
import { useWorkspace } from '../data/useWorkspace';
import type { NotebookEntry } from '../model/items';
import type { LongWorker } from '../sheet/blotter/longWork';
import type { View } from '../sheet/ink/view';
import type { OpenDocument } from '../sync/openDocument';
import { Button, SignButton, Toggle } from '../ui/Button';
import { Menu } from '../ui/Menu';
import { NameDialog } from '../ui/naming';
import { ChoosePart, type Part } from './ChoosePart';
import { lastWords, momentWords } from './pastWords';
import { Strip } from './Strip';
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
  const [naming, setNaming] = useState<Moment>();
  const people = useWriters(document.space, notebook.id, chart?.people ?? noPeople);
  const words = chart ? momentWords(past.time, past.isNow) : '';
  const named = notebook.moments.filter((moment) => chart && isOn(chart.sittings, moment.at));
  const standing = named.findLast((moment) => moment.at <= past.time);
  const version = document.getVersion();
  // Moving the view asks for none of this anew.
  const [came = 0, went = 0, rubbed = 0, changed = 0] = useMemo(
    () => (compares ? HistoryBridge.Differences(document.handle) : []),
    [HistoryBridge, document, compares, past.count, version],
  );

  const leave = useRef(onClose);
  leave.current = onClose;
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const isOver = globalThis.document.querySelector('[role=dialog], [role=menu]') !== null;
      if (event.key === 'Escape' && !event.defaultPrevented && !isOver) leave.current();
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  }, []);

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
  if (past.reading !== undefined || !chart)
    return (
      <section
        aria-label={t`History`}
        data-testid="history"
        className="flex shrink-0 items-center gap-4 border-b border-base-300 bg-base-100 py-1 ps-4 pe-1"
      >
        <span>{t`Reading the history`}</span>
        <progress
          aria-label={t`Reading the history`}
          className="progress progress-primary grow"
          value={Math.round((past.reading ?? 0) * 100)}
          max={100}
        />
        <SignButton label={t`Leave the history`} onClick={onClose}>
          <XIcon size={20} />
        </SignButton>
      </section>
    );
  return (
    <>
      {choosing &&
        over.current &&
        createPortal(<ChoosePart page={document} view={view} part={part} onPart={setPart} />, over.current)}
      <section
        aria-label={t`History`}
        data-testid="history"
        data-count={past.count}
        className="shrink-0 border-b border-base-300 bg-base-100"
      >
        <div className="flex flex-wrap items-center gap-x-1 gap-y-0 ps-4 pe-1 pt-1">
          <div className="me-auto min-w-0 py-1.5">
            <h2 className="truncate font-title text-[18px] leading-tight" data-testid="history-moment">
              {words}
            </h2>
            <p className="truncate text-[13px] text-quiet" data-testid="history-last">
              {standing ? `“${standing.name}” · ` : ''}
              {lastWords(HistoryBridge.Last(document.handle, past.count), people)}
            </p>
          </div>
          <Toggle
            on={compares}
            disabled={past.isNow && !compares}
            className="flex items-center gap-2 px-3"
            data-testid="history-compare"
            onClick={() => compare(!compares)}
          >
            <ColumnsPlusRightIcon size={20} weight="light" />
            <span className="@max-4xl:sr-only">{t`Compare with now`}</span>
          </Toggle>
          {mayWrite && (
            <>
              <Toggle
                on={choosing}
                disabled={past.isNow}
                className="flex items-center gap-2 px-3"
                data-testid="history-part-on"
                onClick={() => {
                  setChoosing(!choosing);
                  setPart(undefined);
                }}
              >
                <SelectionIcon size={20} weight="light" />
                <span className="@max-4xl:sr-only">{t`Choose a part`}</span>
              </Toggle>
              <Button
                look="primary"
                disabled={past.isNow || (choosing && !part)}
                className="ms-1"
                data-testid="have-back"
                onClick={() => haveBack(part?.items ?? [])}
              >
                <ArrowUUpLeftIcon size={20} weight="light" />
                {part ? t`Have this back` : t`Have it back`}
              </Button>
            </>
          )}
          <Menu
            label={t`More: a copy, a name for this moment`}
            testId="history-more"
            icon={<DotsThreeIcon size={24} />}
            entries={[
              ...(mayWrite
                ? [
                    {
                      label: t`A page of its own as it was`,
                      testId: 'history-copy',
                      icon: <ColumnsPlusRightIcon size={20} weight="light" />,
                      onChoose: copy,
                    },
                    {
                      label: t`Name this moment`,
                      testId: 'history-name',
                      icon: <FlagBannerIcon size={20} weight="light" />,
                      onChoose: () => setNaming({ id: '', at: past.time, name: '' }),
                    },
                  ]
                : []),
              ...named.map((moment) => ({
                label: t`Go to “${moment.name}”`,
                testId: 'history-go-moment',
                icon: <FlagBannerIcon size={20} weight="light" />,
                onChoose: () => go(() => past.go(HistoryBridge.CountBy(document.handle, moment.at))),
              })),
            ]}
          />
          <SignButton label={t`Leave the history`} data-testid="history-close" onClick={onClose}>
            <XIcon size={20} />
          </SignButton>
        </div>
        {compares && (
          <div className="flex flex-wrap items-center gap-x-2 px-4" role="group" aria-label={t`What is shown`}>
            <Side
              colour="#1f5f8b"
              on={sides.added}
              testId="history-added"
              words={t`Came since: ${came + changed}`}
              onPress={() => compare(true, { ...sides, added: !sides.added })}
            />
            <Side
              colour="#c4623f"
              on={sides.removed}
              testId="history-removed"
              words={t`Gone since: ${went + rubbed + changed}`}
              onPress={() => compare(true, { ...sides, removed: !sides.removed })}
            />
          </div>
        )}
        <Strip
          chart={chart}
          people={people}
          moments={named}
          placeOf={(time) =>
            HistoryBridge.Moment(document.handle, HistoryBridge.CountBy(document.handle, time))[0] ?? 0
          }
          count={past.count}
          position={past.position}
          words={words}
          onGo={(count) => go(() => past.go(count))}
          onSitting={(later) => go(() => past.go(HistoryBridge.Beside(document.handle, past.count, later)))}
          onGoTo={(position) => go(() => past.goTo(position))}
        />
      </section>
      {naming && (
        <NameDialog
          title={t`Name this moment`}
          label={t`What to call it, as “before the exam”`}
          confirm={t`Keep the name`}
          onConfirm={(name) => {
            notebook.nameMoment(naming.at, name);
          }}
          onClose={() => setNaming(undefined)}
        />
      )}
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

function isOn(sittings: [number, number, number, number][], time: number): boolean {
  return sittings.length > 0 && time >= sittings[0]![0];
}
