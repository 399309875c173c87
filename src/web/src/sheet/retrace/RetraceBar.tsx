import { SignButton } from '../../ui/Button';
import { t } from '@lingui/core/macro';
import { PauseIcon, PlayIcon, XIcon } from '@phosphor-icons/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Writer } from '../../data/usePeople';
import type { OpenDocument } from '../../sync/openDocument';
import { useWorkspace } from '../../data/useWorkspace';
import type { Blotter } from '../blotter/blotter';
import { identity } from '../ink/floatInk';
import { readPacket } from '../ink/packet';

interface RetraceBarProps {
  blotter: Blotter;
  page: OpenDocument;
  /** What was selected; nothing for all of the page. */
  items: string[];
  people: Writer[];
  onClose: () => void;
}

interface Step {
  id: string;
  start: number;
  end: number;
  author: string;
}

const speeds = [0.5, 1, 2, 4, 8, 16];

/** Watch a page, or a part of it, being written again. */
export function RetraceBar({ blotter, page, items, people, onClose }: RetraceBarProps) {
  const { core } = useWorkspace();
  const [author, setAuthor] = useState('');
  const [speed, setSpeed] = useState(4);
  const [playing, setPlaying] = useState(true);
  const [at, setAt] = useState(0);
  const version = page.getVersion();
  const all = useMemo(
    () => JSON.parse(core.HandBridge.RetracePlan(page.handle, items)) as Step[],
    [core, page, items, version],
  );
  const steps = useMemo(() => all.filter((step) => !author || step.author === author), [all, author]);
  const length = Math.max(1, ...steps.map((step) => step.end));
  const authors = [...new Set(all.map((step) => step.author))];
  const now = useRef(at);
  now.current = at;

  useEffect(() => {
    if (!playing) return;
    let before = performance.now();
    let frame = requestAnimationFrame(function run(time) {
      const next = Math.min(length, now.current + (time - before) * speed);
      before = time;
      setAt(next);
      if (next < length) frame = requestAnimationFrame(run);
      else setPlaying(false);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, speed, length]);

  // What is not written yet is lifted off the page; what is being written floats as far as it got.
  useEffect(() => {
    const shown = new Set(steps.filter((step) => step.end <= at).map((step) => step.id));
    blotter.dry.lift(new Set(all.filter((step) => !shown.has(step.id)).map((step) => step.id)));
    const writing = steps.filter((step) => step.start <= at && step.end > at);
    blotter.float.show(
      writing.map((step) => ({
        items: readPacket(
          core.HandBridge.RetracePart(page.handle, step.id, Math.round(at - step.start), step.end - step.start),
        ),
        matrix: identity,
      })),
    );
  }, [core, blotter, page, all, steps, at]);
  useEffect(
    () => () => {
      blotter.dry.lift(new Set());
      blotter.float.show([]);
    },
    [blotter],
  );

  const play = () => {
    if (!playing && at >= length) setAt(0);
    setPlaying(!playing);
  };
  return (
    <section
      aria-label={t`Retrace`}
      data-testid="retrace"
      className="absolute inset-x-4 bottom-3 z-20 mx-auto flex max-w-[760px] items-center gap-3 rounded-lg border border-base-300 bg-base-100 px-3 py-2 shadow-md"
    >
      <button
        type="button"
        aria-label={playing ? t`Pause` : t`Play`}
        data-testid="retrace-play"
        className="btn btn-primary grid size-11 min-h-11 shrink-0 place-items-center p-0"
        onClick={play}
      >
        {playing ? <PauseIcon size={20} weight="fill" /> : <PlayIcon size={20} weight="fill" />}
      </button>
      <span className="w-[86px] shrink-0 text-[13px] tabular-nums text-quiet" data-testid="retrace-time">
        {clock(at)} / {clock(length)}
      </span>
      <input
        type="range"
        aria-label={t`Where in the writing`}
        data-testid="retrace-scrub"
        min={0}
        max={length}
        step={Math.max(1, Math.round(length / 1000))}
        value={at}
        className="range range-primary range-xs grow"
        onChange={(event) => {
          setPlaying(false);
          setAt(Number(event.target.value));
        }}
      />
      <label className="flex shrink-0 items-center gap-1.5 text-[13px]">
        {t`Speed`}
        <select
          data-testid="retrace-speed"
          className="select select-sm h-10 w-[72px] border-base-300 bg-base-100"
          value={speed}
          onChange={(event) => setSpeed(Number(event.target.value))}
        >
          {speeds.map((one) => (
            <option key={one} value={one}>
              {one}×
            </option>
          ))}
        </select>
      </label>
      {authors.length > 1 && (
        <select
          aria-label={t`Whose writing`}
          data-testid="retrace-person"
          className="select select-sm h-10 w-[120px] shrink-0 border-base-300 bg-base-100"
          value={author}
          onChange={(event) => setAuthor(event.target.value)}
        >
          <option value="">{t`everybody`}</option>
          {authors.map((one) => (
            <option key={one} value={one}>
              {people.find((person) => person.id === one)?.name ?? t`Somebody`}
            </option>
          ))}
        </select>
      )}
      <SignButton label={t`End retracing`} data-testid="retrace-close" onClick={onClose}>
        <XIcon size={18} />
      </SignButton>
    </section>
  );
}

function clock(milliseconds: number): string {
  const seconds = Math.floor(milliseconds / 1000);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}
