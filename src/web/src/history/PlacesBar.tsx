import { plural, t } from '@lingui/core/macro';
import { useEffect, useRef, useState } from 'react';
import { sentenceOf } from '../core/runtime';
import type { Moment } from '../data/useNotebook';
import type { Writer } from '../data/usePeople';
import { useWorkspace } from '../data/useWorkspace';
import { type LongWork, stillAtWork, WorkLine } from '../sheet/blotter/longWork';
import type { MenuEntry } from '../ui/Menu';
import type { Selection } from '../ui/useChosen';
import { say } from '../ui/saying';
import { sideColours } from './chart';
import { haveBackPlaces, type WantedBack } from './haveBack';
import { goTo, momentsOn } from './moments';
import { PastBar, ReadingPast } from './PastBar';
import { lastWords, momentWords } from './pastWords';
import type { OnPlacesPast } from './usePlacesPast';

interface PlacesBarProps {
  past: OnPlacesPast;
  /** What the bar is of, for who hears it. */
  label: string;
  people: Writer[];
  moments: Moment[];
  compares: boolean;
  onCompare: (on: boolean) => void;
  /** What became of each thing that is shown. */
  signs: (Became | undefined)[];
  /** Having it back; undefined for who may not write. */
  back?: {
    selection: Selection;
    /** All, or what is chosen of it. */
    wanted: () => WantedBack;
  };
  more: MenuEntry[];
  onClose: () => void;
}

/** The bar of a notebook or folder as it was: comparing, choosing, having it back. */
export function PlacesBar(props: PlacesBarProps) {
  const { past, label, people, moments, compares, onCompare, signs, back, more, onClose } = props;
  const workspace = useWorkspace();
  const [work, setWork] = useState<LongWork>();
  const atWork = useRef<AbortController>(undefined);
  const isHere = useRef(true);
  useEffect(() => {
    isHere.current = true;
    return () => void (isHere.current = false);
  }, []);
  const { chart } = past;
  const selection = back?.selection;
  const chosen = selection?.chosen.size ?? 0;

  const haveBack = async (wanted: WantedBack) => {
    if (atWork.current) return say(stillAtWork);
    const ended = (atWork.current = new AbortController());
    const tell = (share: number) => setWork({ words: t`Having it back`, share, giveUp: () => ended.abort() });
    tell(0);
    try {
      await haveBackPlaces(workspace, wanted, tell, ended.signal);
      // What is back is seen where it is; whoever went elsewhere stays there.
      if (isHere.current) onClose();
    } catch (problem) {
      say(sentenceOf(problem));
    } finally {
      atWork.current = undefined;
      setWork(undefined);
    }
  };

  if (!chart) return <ReadingPast share={0} onClose={onClose} />;
  const named = momentsOn(chart, moments);
  const standing = named.findLast((moment) => moment.at <= past.time);
  const [, person, deed] = chart.strokes.findLast(([column]) => column < past.count) ?? [];
  return (
    <>
      <PastBar
        last={[
          ...(standing ? [`“${standing.name}”`] : []),
          past.isRough
            ? t`What was written is told when there is a connection.`
            : lastWords(person === undefined ? [] : [chart.people[person]!, String(deed)], people),
        ].join(' · ')}
        isNow={past.isNow}
        compares={compares}
        onCompare={() => onCompare(!compares)}
        sides={<Legend signs={past.isNow ? [] : signs} />}
        {...(back && selection
          ? {
              back: {
                words: chosen > 0 ? plural(chosen, { one: 'Have # back', other: 'Have # back' }) : t`Have it back`,
                isReady: (!selection.choosing || chosen > 0) && !work,
                choosing: selection.choosing,
                chooseWords: t`Choose`,
                onChoose: () => (selection.choosing ? selection.clear() : selection.setChoosing(true)),
                onBack: () => void haveBack(back.wanted()),
              },
            }
          : {})}
        more={[...more, ...goTo(named, (moment) => past.goToTime(moment.at))]}
        onClose={onClose}
        strip={{
          label,
          chart,
          people,
          moments: named,
          placeOf: past.placeOf,
          count: past.count,
          position: past.position,
          words: momentWords(past.time, past.isNow),
          onGo: past.go,
          onSitting: past.goBeside,
          onGoTo: past.goTo,
        }}
      />
      {work && <WorkLine work={work} />}
    </>
  );
}

/** What the signs on things mean, and how many of them there are. */
function Legend({ signs }: { signs: (Became | undefined)[] }) {
  const count = (...which: Became[]) => signs.filter((sign) => sign && which.includes(sign)).length;
  const [came, gone, changed] = [count('came'), count('binned', 'gone'), count('changed', 'written')];
  return (
    <ul className="flex flex-wrap gap-x-5 py-1.5 text-[13px]" data-testid="past-sums">
      <Sum colour={sideColours.came} words={t`Came since: ${came}`} />
      <Sum colour={sideColours.gone} words={t`Gone since: ${gone}`} />
      <Sum colour={changedColour} words={t`Otherwise since: ${changed}`} />
    </ul>
  );
}

const changedColour = '#8a6d1f';

function Sum({ colour, words }: { colour: string; words: string }) {
  return (
    <li className="flex items-center gap-2">
      <Dot colour={colour} />
      {words}
    </li>
  );
}

function Dot({ colour }: { colour: string }) {
  return <span aria-hidden="true" className="size-2.5 shrink-0 rounded-full" style={{ background: colour }} />;
}

export type Became = 'came' | 'binned' | 'gone' | 'changed' | 'written';

/** What became of a thing since, beside its name. */
export function BecameSign({ became }: { became: Became }) {
  const [colour, words] = {
    came: [sideColours.came, t`Came since`],
    binned: [sideColours.gone, t`In the bin now`],
    gone: [sideColours.gone, t`Gone since`],
    changed: [changedColour, t`Otherwise since`],
    written: [changedColour, t`Written on since`],
  }[became] as [string, string];
  return (
    <span className="flex min-w-0 items-center gap-1.5" data-testid="became" data-became={became}>
      <Dot colour={colour} />
      <span className="truncate">{words}</span>
    </span>
  );
}
