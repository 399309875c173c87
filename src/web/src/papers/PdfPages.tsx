import { t } from '@lingui/core/macro';
import { useEffect, useRef, useState } from 'react';
import type { PdfFile } from './pdfPages';

/** The pages of a PDF file, small, to choose one of them. Each is drawn when it comes into sight. */
export function PdfPages({ file, page, onPage }: { file: PdfFile; page: number; onPage: (page: number) => void }) {
  return (
    <div role="radiogroup" aria-label={t`Page of the file`}>
      <span className="mb-1 block font-semibold">
        {t`Page of the file`} <span className="font-normal text-quiet">{t`${page} of ${file.pages}`}</span>
      </span>
      <div className="grid max-h-72 grid-cols-[repeat(auto-fill,minmax(84px,1fr))] gap-2 overflow-y-auto rounded-md border border-base-300 bg-desk p-2">
        {Array.from({ length: file.pages }, (_, i) => (
          <PageChoice key={i} file={file} number={i + 1} isChosen={page === i + 1} onChoose={() => onPage(i + 1)} />
        ))}
      </div>
    </div>
  );
}

function PageChoice({
  file,
  number,
  isChosen,
  onChoose,
}: {
  file: PdfFile;
  number: number;
  isChosen: boolean;
  onChoose: () => void;
}) {
  const button = useRef<HTMLButtonElement>(null);
  const [address, setAddress] = useState<string>();
  useEffect(() => {
    let made: string | undefined;
    let gone = false;
    const sight = new IntersectionObserver((seen) => {
      if (!seen.some((entry) => entry.isIntersecting)) return;
      sight.disconnect();
      void file.thumbnail(number).then(
        (picture) => {
          if (!gone) setAddress((made = URL.createObjectURL(picture)));
        },
        // A page that cannot be drawn keeps its number; choosing it says so.
        () => {},
      );
    });
    sight.observe(button.current!);
    return () => {
      gone = true;
      sight.disconnect();
      if (made) URL.revokeObjectURL(made);
    };
  }, [file, number]);
  return (
    <button
      ref={button}
      type="button"
      role="radio"
      aria-checked={isChosen}
      aria-label={t`Page ${number}`}
      data-testid="pdf-page"
      data-drawn={address ? '1' : undefined}
      className={`grid aspect-[3/4] place-items-center overflow-hidden rounded-sm border-2 bg-paper ${isChosen ? 'border-primary' : 'border-transparent'}`}
      onClick={onChoose}
    >
      {address ? (
        <img src={address} alt="" className="max-h-full max-w-full object-contain" />
      ) : (
        <span className="text-quiet">{number}</span>
      )}
    </button>
  );
}
