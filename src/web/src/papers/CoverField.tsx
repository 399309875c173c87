import { coverWords } from '../words/coreWords';
import { t } from '@lingui/core/macro';
import { ImageIcon } from '@phosphor-icons/react';
import { useRef, useState } from 'react';
import { sentenceOf } from '../core/runtime';
import { keepPicture } from '../data/ownPapers';
import { useWorkspace } from '../data/useWorkspace';
import { Cover } from './Cover';

interface Look {
  name: string;
  colour: string;
  cover: string;
  source?: string;
}

/** The cover's pattern, each shown as it would be for this notebook, or a picture of one's own. */
export function CoverField({
  look,
  covers,
  space,
  onChange,
}: {
  look: Look;
  covers: string[];
  space?: string;
  onChange: (change: { cover?: string; source?: string }) => void;
}) {
  const workspace = useWorkspace();
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState('');
  const take = async (picture: File | undefined) => {
    if (!picture || !space) return;
    try {
      onChange({ source: (await keepPicture(workspace, space, picture)).asset });
      setProblem('');
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  return (
    <fieldset className="mt-3">
      <legend className="mb-1 font-semibold">{t`Cover`}</legend>
      <div className="-m-1 flex max-h-[236px] flex-wrap gap-1.5 overflow-y-auto p-1">
        {covers.map((one) => (
          <button
            key={one}
            type="button"
            aria-label={coverWords[one] ?? one}
            title={coverWords[one] ?? one}
            aria-pressed={!look.source && look.cover === one}
            data-testid={`cover-${one}`}
            onClick={() => onChange({ cover: one, source: '' })}
            className={`rounded-[5px] p-0.5 ${!look.source && look.cover === one ? 'outline-2 outline-primary' : ''}`}
          >
            <Cover node={{ name: look.name || t`Untitled`, colour: look.colour, cover: one }} width={48} />
          </button>
        ))}
        {space && (
          <button
            type="button"
            aria-pressed={Boolean(look.source)}
            data-testid="cover-picture"
            onClick={() => file.current!.click()}
            className={`grid h-[69px] w-[52px] place-content-center justify-items-center gap-1 rounded-[5px] border border-dashed border-quiet text-[12px] ${look.source ? 'outline-2 outline-primary' : ''}`}
          >
            <ImageIcon size={20} weight="light" /> {t`Picture`}
          </button>
        )}
        <input
          ref={file}
          type="file"
          accept="image/*"
          className="hidden"
          aria-label={t`Picture for the cover`}
          onChange={(event) => void take(event.target.files?.[0])}
        />
      </div>
      {problem && (
        <p role="alert" className="pt-1 text-error">
          {problem}
        </p>
      )}
    </fieldset>
  );
}
