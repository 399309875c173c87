import { t } from '@lingui/core/macro';
import { PlusSquareIcon } from '@phosphor-icons/react';
import { type ReactNode, useRef } from 'react';
import { pictureTypes } from '../../data/pictureFiles';
import type { Offer, PanelProps } from '../hand/tool';
import { unfolding } from './offering';
import { slip } from './slip';
import { stamp } from './stamp';
import { table } from './table';
import { text } from './text';
import { Unfolded } from './Unfolded';

/** Bringing something onto the sheet that is not written by hand. */
export const put: Offer = {
  ...unfolding('put'),
  words: () => t`Put in`,
  title: t`Put in`,
  icon: () => PlusSquareIcon,
  key: 'p',
  Panel: PutPanel,
};

/** What can be put in, as small drawings of itself. */
function PutPanel({ tools, sheet }: PanelProps) {
  const file = useRef<HTMLInputElement>(null);
  const camera = useRef<HTMLInputElement>(null);
  const any = useRef<HTMLInputElement>(null);
  const bring = (input: HTMLInputElement, put = sheet.putPictures) => {
    const files = [...(input.files ?? [])];
    input.value = '';
    if (files.length > 0) put(files);
    tools.fold();
  };
  return (
    <Unfolded title={t`Put in`} testId="put-panel">
      <div className="mt-2 grid grid-cols-2 gap-1.5">
        <Thing name={t`Picture`} testId="put-picture" onPress={() => file.current!.click()}>
          <rect x="12" y="9" width="56" height="42" fill="#fffdf7" stroke="#22302e" strokeWidth="1.6" />
          <path
            d="M40 9.5v24M40 40.5a5.5 5.5 0 1 0 .1-11 5.5 5.5 0 0 0-.1 11M18 45c8-3 12-1 20 0s16 1 24-1"
            fill="none"
            stroke="#1f5f8b"
            strokeWidth="1.6"
            strokeLinecap="round"
          />
        </Thing>
        <Thing name={t`Camera`} testId="put-camera" onPress={() => camera.current!.click()}>
          <path
            d="M12 20.5c6-.6 11-.4 14-.6l4-7h20l4 7c4 .3 9 0 14 .6v29c-18 .8-38 .8-56 0z"
            fill="#fffdf7"
            stroke="#22302e"
            strokeWidth="1.6"
            strokeLinejoin="round"
          />
          <circle cx="40" cy="34" r="10" fill="none" stroke="#b4533c" strokeWidth="1.8" />
          <circle cx="40" cy="34" r="4" fill="none" stroke="#22302e" strokeWidth="1.4" />
        </Thing>
        <Thing name={t`Slip`} testId="put-slip" onPress={() => tools.pressTool(slip)}>
          <path d="M17 14l44-4 3 36-45 5z" fill="#f3e2a4" stroke="#9c8a4a" strokeWidth="1.2" />
          <path
            d="M24 24c9-2 17-1 30-3M25 32c7-1 13-1 22-2"
            fill="none"
            stroke="#22302e"
            strokeWidth="1.6"
            strokeLinecap="round"
          />
        </Thing>
        <Thing name={t`Stamp`} testId="put-stamp" onPress={() => tools.pressTool(stamp)}>
          <path d="M22 44h36v7H22z" fill="#e4ece8" stroke="#22302e" strokeWidth="1.6" />
          <path
            d="M34 44c1-7-1-9-3-13a9.5 9.5 0 1 1 18 0c-2 4-4 6-3 13"
            fill="#fffdf7"
            stroke="#22302e"
            strokeWidth="1.6"
            strokeLinejoin="round"
          />
          <path d="M20 55h40" stroke="#b4533c" strokeWidth="1.8" strokeLinecap="round" />
        </Thing>
        <Thing name={t`Text`} testId="put-text" onPress={() => tools.pressTool(text)}>
          <path d="M12 22h56M12 38h56M12 52h56" stroke="#c9d3cf" strokeWidth="1.2" />
          <text x="13" y="21" fontSize="15" fill="#22302e" fontFamily="Literata, serif">{t`Words`}</text>
          <path d="M60 10v13" stroke="#b4533c" strokeWidth="1.6" />
        </Thing>
        <Thing name={t`Table`} testId="put-table" onPress={() => tools.pressTool(table)}>
          <path d="M13 11h54v38H13z" fill="#fffdf7" />
          <path d="M13 11h54v12H13z" fill="#e4ece8" />
          <path
            d="M13 11h54v38H13zM13 23h54M13 36h54M31 11v38M49 11v38"
            fill="none"
            stroke="#22302e"
            strokeWidth="1.4"
          />
          <path
            d="M18 31h8M36 31h8M54 31h8M18 43h8M36 43h8M54 43h8"
            stroke="#1f5f8b"
            strokeWidth="1.8"
            strokeLinecap="round"
          />
        </Thing>
        <Thing
          name={t`Plot`}
          testId="put-plot"
          onPress={() => {
            sheet.putPlot();
            tools.fold();
          }}
        >
          <path d="M14 8v44h54" fill="none" stroke="#22302e" strokeWidth="1.6" strokeLinecap="round" />
          <path
            d="M16 40c8-34 16-34 24-12s14 18 24-14"
            fill="none"
            stroke="#1f5f8b"
            strokeWidth="1.8"
            strokeLinecap="round"
          />
          <path d="M24 44h.1M36 34h.1M48 30h.1M60 22h.1" stroke="#b4533c" strokeWidth="4" strokeLinecap="round" />
        </Thing>
        <Thing
          name={t`Formula`}
          testId="put-formula"
          onPress={() => {
            sheet.putFormula();
            tools.fold();
          }}
        >
          <path d="M14 33l5-2 6 15 7-35h36" fill="none" stroke="#22302e" strokeWidth="1.8" strokeLinejoin="round" />
          <text x="45" y="26" fontSize="15" fill="#1f5f8b" fontFamily="Literata, serif" fontStyle="italic">
            L
          </text>
          <path d="M40 31h22" stroke="#b4533c" strokeWidth="1.8" strokeLinecap="round" />
          <text x="46" y="46" fontSize="15" fill="#1f5f8b" fontFamily="Literata, serif" fontStyle="italic">
            g
          </text>
        </Thing>
        {sheet.putPages && (
          <Thing name={t`Pages`} testId="put-pages" onPress={sheet.putPages}>
            <path d="M16 12h30v38H16z" fill="#fffdf7" stroke="#9a937b" strokeWidth="1.2" />
            <path d="M24 8h30v38H24z" fill="#fffdf7" stroke="#9a937b" strokeWidth="1.2" />
            <path d="M30 15h18M30 21h12" stroke="#22302e" strokeWidth="1.8" strokeLinecap="round" />
            <path d="M30 29h18v11H30z" fill="#e4ece8" stroke="#1f5f8b" strokeWidth="1.4" />
            <path d="M60 22v20M53 36l7 7 7-7" fill="none" stroke="#b4533c" strokeWidth="1.8" strokeLinecap="round" />
          </Thing>
        )}
        <Thing name={t`File`} testId="put-file" onPress={() => any.current!.click()}>
          <path d="M10 17h60v27H10z" fill="#fbf7ec" stroke="#9a937b" strokeWidth="1.2" />
          <path d="M16 22h9l4 4v13H16z" fill="#1f3d3b" />
          <path d="M35 28h28M35 35h14" stroke="#22302e" strokeWidth="1.8" strokeLinecap="round" />
        </Thing>
      </div>
      <p className="mt-2 text-[13px] text-quiet">
        {t`Pictures and files can be dropped and pasted onto the sheet as well. A file holds at most 64 MB.`}
      </p>
      <input
        ref={any}
        type="file"
        multiple
        aria-label={t`Files`}
        data-testid="put-any"
        className="hidden"
        onChange={(event) => bring(event.target, sheet.putFiles)}
      />
      <input
        ref={file}
        type="file"
        accept={pictureTypes}
        multiple
        aria-label={t`Pictures`}
        data-testid="put-files"
        className="hidden"
        onChange={(event) => bring(event.target)}
      />
      <input
        ref={camera}
        type="file"
        accept="image/*"
        capture="environment"
        aria-label={t`Camera`}
        className="hidden"
        onChange={(event) => bring(event.target)}
      />
    </Unfolded>
  );
}

function Thing({
  name,
  testId,
  onPress,
  children,
}: {
  name: string;
  testId: string;
  onPress: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      data-testid={testId}
      className="flex flex-col items-center rounded-md border border-base-300 pb-1.5 hover:bg-base-200"
      onClick={onPress}
    >
      <svg viewBox="0 0 80 60" className="h-[62px] w-full" aria-hidden="true">
        {children}
      </svg>
      {name}
    </button>
  );
}
