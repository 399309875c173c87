import { t } from '@lingui/core/macro';
import {
  ArrowSquareOutIcon,
  CalculatorIcon,
  CalendarBlankIcon,
  CalendarPlusIcon,
  CheckSquareIcon,
  ClockIcon,
  CopyIcon,
  EnvelopeSimpleIcon,
  type Icon,
  LinkSimpleIcon,
  NoteIcon,
  PhoneIcon,
} from '@phosphor-icons/react';
import type { Seen, SeenKind } from '../../core/seenBridge';
import { isMadeLink } from '../../data/seen';
import { copyText } from '../../ui/saying';
import { dateLocale } from '../../words/language';

/** What can be done with words that are seen, as far as it may be done here. */
export interface SeenActs {
  follow: (seen: Seen) => void;
  /** A “To do” that is due on a day. */
  followUp?: ((seen: Seen) => void) | undefined;
  /** An entry of a planner. */
  plan?: ((seen: Seen) => void) | undefined;
  /** A picture and a title of what an address leads to, kept on the page. */
  preview?: ((seen: Seen) => void) | undefined;
  /** What a sum comes to is written behind it. */
  workOut?: ((seen: Seen) => void) | undefined;
}

export const seenIcons: Record<SeenKind, Icon> = {
  link: LinkSimpleIcon,
  mail: EnvelopeSimpleIcon,
  phone: PhoneIcon,
  day: CalendarBlankIcon,
  time: ClockIcon,
  sum: CalculatorIcon,
};

/** What is seen there, in words: a day with its name, a sum with what it comes to. */
export function seenWords(seen: Seen): string {
  const { kind, value, words } = seen;
  switch (kind) {
    case 'day':
      return new Date(`${value}T12:00:00`).toLocaleDateString(dateLocale(), {
        weekday: 'long',
        day: 'numeric',
        month: 'long',
        year: 'numeric',
      });
    case 'sum':
      return `${words.replace(/\s*=$/, '')} = ${value}`;
    case 'link':
      return isMadeLink(seen) ? `${words}: ${value}` : value;
    default:
      return value;
  }
}

interface Offer {
  testId: string;
  icon: Icon;
  words: string;
  /** Where it leads out of the application; else what it does. */
  href?: string;
  press?: () => void;
}

/** The things that can be done with words that are seen, one under the other. */
export function SeenOffers({ seen, acts, onDone }: { seen: Seen; acts: SeenActs; onDone: () => void }) {
  return (
    <ul className="w-[236px]">
      {offersOf(seen, acts).map(({ testId, icon: Of, words, href, press }) => {
        const content = (
          <>
            <Of size={20} weight="light" className="shrink-0" />
            <span className="min-w-0">{words}</span>
          </>
        );
        const look = 'flex min-h-11 w-full items-center gap-2.5 rounded-md px-2 text-start hover:bg-base-200';
        return (
          <li key={testId}>
            {href ? (
              <a className={look} href={href} data-testid={`seen-${testId}`} onClick={onDone}>
                {content}
              </a>
            ) : (
              <button
                type="button"
                className={look}
                data-testid={`seen-${testId}`}
                onClick={() => {
                  press?.();
                  onDone();
                }}
              >
                {content}
              </button>
            )}
          </li>
        );
      })}
    </ul>
  );
}

function offersOf(seen: Seen, acts: SeenActs): Offer[] {
  const { kind, value } = seen;
  const offers: (Offer | false | undefined)[] = [
    kind === 'link' && {
      testId: 'follow',
      icon: ArrowSquareOutIcon,
      words: t`Go where it leads`,
      press: () => acts.follow(seen),
    },
    kind === 'link' &&
      isOfWeb(value) &&
      acts.preview && {
        testId: 'preview',
        icon: NoteIcon,
        words: t`Keep a preview of it`,
        press: () => acts.preview!(seen),
      },
    kind === 'mail' && {
      testId: 'mail',
      icon: EnvelopeSimpleIcon,
      words: t`Write a mail`,
      href: `mailto:${encodeURIComponent(value).replace('%40', '@')}`,
    },
    kind === 'phone' && { testId: 'call', icon: PhoneIcon, words: t`Call`, href: `tel:${value}` },
    kind === 'day' &&
      acts.followUp && {
        testId: 'follow-up',
        icon: CheckSquareIcon,
        words: t`Follow up by that day`,
        press: () => acts.followUp!(seen),
      },
    (kind === 'day' || kind === 'time') &&
      acts.plan && {
        testId: 'plan',
        icon: CalendarPlusIcon,
        words: t`Put it into a planner`,
        press: () => acts.plan!(seen),
      },
    kind === 'sum' &&
      acts.workOut && {
        testId: 'work-out',
        icon: CalculatorIcon,
        words: t`Write the result behind it`,
        press: () => acts.workOut!(seen),
      },
    {
      testId: 'copy',
      icon: CopyIcon,
      words: kind === 'sum' ? t`Copy the result` : t`Copy it`,
      press: () => copyText(value),
    },
  ];
  return offers.filter((offer): offer is Offer => Boolean(offer));
}

function isOfWeb(target: string): boolean {
  return target.startsWith('https://') || target.startsWith('http://');
}
