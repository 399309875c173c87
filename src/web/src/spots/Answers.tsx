import { t } from '@lingui/core/macro';
import { PencilLineIcon, XIcon } from '@phosphor-icons/react';
import { useEffect, useRef, useState } from 'react';
import { sentenceOf } from '../core/runtime';
import type { Spot } from '../data/spots';
import type { Writer } from '../data/usePeople';
import { useWorkspace } from '../data/useWorkspace';
import { whenWords } from '../model/time';
import { useSession } from '../server/session';
import type { OpenDocument } from '../sync/openDocument';
import { Avatar } from '../ui/Avatar';
import { Button, SignButton, Toggle } from '../ui/Button';
import { say } from '../ui/saying';
import { AnswerInk } from './AnswerInk';
import { AnswerPad } from './AnswerPad';

interface AnswersProps {
  spot: Spot;
  page: OpenDocument;
  people: Writer[];
  mayWrite: boolean;
}

const mostText = 2_000;
const first = (name: string) => name.split(' ')[0]!;

/** What was said to a mark, and what one says oneself: typed, or by hand. */
export function Answers({ spot, page, people, mayWrite }: AnswersProps) {
  const { core } = useWorkspace();
  const { person: me } = useSession();
  const [text, setText] = useState('');
  const field = useRef<HTMLTextAreaElement>(null);
  const list = useRef<HTMLUListElement>(null);
  const [byHand, setByHand] = useState(false);
  const [ink, setInk] = useState<Uint8Array>(new Uint8Array());
  // What was said last is what one comes for.
  useEffect(() => void list.current?.scrollTo({ top: list.current.scrollHeight }), [spot.answers.length]);
  const others = people.filter((one) => one.id !== me.id);
  const typed = /@([\p{L}\p{N}'-]*)$/u.exec(text)?.[1];
  const meant =
    typed === undefined ? [] : others.filter((one) => first(one.name).toLowerCase().startsWith(typed.toLowerCase()));
  const isReady = text.trim() !== '' || ink.length > 0;
  const send = () => {
    const named = others.filter((one) => hasName(text, first(one.name))).map((one) => one.id);
    try {
      page.perform((handle, now) =>
        core.AnswerBridge.Say(handle, spot.id, text.trim().slice(0, mostText), named, ink, now),
      );
      setText('');
      setByHand(false);
      setInk(new Uint8Array());
    } catch (problem) {
      say(sentenceOf(problem));
    }
  };
  return (
    <section aria-label={t`Answers`} className="mt-2 border-t border-base-300 pt-2">
      <ul ref={list} className="max-h-[220px] overflow-y-auto" aria-live="polite">
        {spot.answers.map((answer) => {
          const author = people.find((one) => one.id === answer.author);
          return (
            <li key={answer.id} className="mb-2 flex items-start gap-2" data-testid="answer">
              <Avatar name={author?.name ?? '?'} colour={author?.colour ?? 'spruce'} size={24} />
              <div className="min-w-0 grow leading-snug">
                <p className="text-[13px] text-quiet">
                  {t`${author ? first(author.name) : t`Somebody`}, ${whenWords(answer.at)}`}
                </p>
                {answer.text && <p className="whitespace-pre-wrap [overflow-wrap:anywhere]">{answer.text}</p>}
                {answer.inked && <AnswerInk page={page} spot={spot.id} answer={answer.id} />}
              </div>
              {(answer.author === me.id || (mayWrite && answer.open)) && (
                <SignButton
                  label={t`Take this answer back`}
                  className="-my-2 shrink-0"
                  data-testid="answer-withdraw"
                  onClick={() => page.perform((handle, now) => core.AnswerBridge.Withdraw(handle, answer.id, now))}
                >
                  <XIcon size={14} />
                </SignButton>
              )}
            </li>
          );
        })}
      </ul>
      <textarea
        ref={field}
        aria-label={t`Your answer`}
        placeholder={t`Answer; @ speaks to somebody`}
        data-testid="answer-text"
        rows={2}
        maxLength={mostText}
        value={text}
        className="textarea min-h-0 w-full border-base-300 bg-base-100 text-[14px]"
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && isReady) send();
        }}
      />
      {meant.length > 0 && (
        <div className="flex flex-wrap gap-1 py-1" role="group" aria-label={t`Speak to`}>
          {meant.slice(0, 5).map((one) => (
            <Button
              key={one.id}
              className="px-2.5"
              data-testid="answer-mention"
              onClick={() => {
                setText(text.replace(/@[\p{L}\p{N}'-]*$/u, `@${first(one.name)} `));
                // The button goes away, and what is typed next belongs to the answer.
                field.current?.focus();
              }}
            >
              {first(one.name)}
            </Button>
          ))}
        </div>
      )}
      {byHand && <AnswerPad onInk={setInk} />}
      <div className="mt-1 flex items-center gap-2">
        <Toggle
          on={byHand}
          className="inline-flex items-center gap-1.5 px-3"
          data-testid="answer-by-hand"
          onClick={() => {
            setByHand(!byHand);
            setInk(new Uint8Array());
          }}
        >
          <PencilLineIcon size={18} weight="light" /> {t`By hand`}
        </Toggle>
        <span className="grow" />
        <Button className="px-3" data-testid="answer-say" disabled={!isReady} onClick={send}>
          {t`Answer`}
        </Button>
      </div>
    </section>
  );
}

/** Whether a text speaks to somebody of this name. */
function hasName(text: string, name: string): boolean {
  return new RegExp(`@${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\p{L}\\p{N}])`, 'iu').test(text);
}
