import { Toggle } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useEffect, useState } from 'react';
import { properties, sentenceOf } from '../core/runtime';
import { NameField } from '../ui/naming';
import type { Library } from '../data/Library';
import type { LibraryNode } from '../model/items';
import type { Say } from '../ui/saying';
import { FormDialog, Problem } from '../ui/FormDialog';
import { keepPaperPicture, makeOwnPaper } from '../data/ownPapers';
import { useWorkspace } from '../data/useWorkspace';
import { isPdf } from '../printed/pdf';
import { openPdf, type PdfFile } from './pdfPages';
import { PdfPages } from './PdfPages';

/** Makes a paper from a picture or a page of a PDF file; or puts another one in the place of a paper, everywhere or only from now on. */
export function OwnPaperDialog({
  library,
  replaced,
  onSay,
  onClose,
}: {
  library: Library;
  replaced?: LibraryNode;
  onSay: Say;
  onClose: () => void;
}) {
  const workspace = useWorkspace();
  const [name, setName] = useState(replaced?.name ?? '');
  const [category, setCategory] = useState(replaced?.category ?? '');
  const [file, setFile] = useState<File>();
  const [page, setPage] = useState(1);
  const [everywhere, setEverywhere] = useState(true);
  const isPdfFile = file !== undefined && isPdf(file);
  const [pdf, setPdf] = useState<PdfFile>();
  const [refused, setRefused] = useState('');
  useEffect(() => {
    if (!file || !isPdfFile) return undefined;
    let gone = false;
    let opened: PdfFile | undefined;
    openPdf(file).then(
      (read) => {
        opened = read;
        if (gone) read.close();
        else setPdf(read);
      },
      (error: unknown) => setRefused(sentenceOf(error)),
    );
    return () => {
      gone = true;
      setPdf(undefined);
      setRefused('');
      opened?.close();
    };
  }, [file, isPdfFile]);
  const confirm = async () => {
    const picture = isPdfFile ? await pdf!.picture(page) : file!;
    const { asset } = await keepPaperPicture(workspace, library.space, picture);
    if (replaced && everywhere) {
      library.set(replaced.id, properties.source, asset);
      onSay(t`“${replaced.name}” was replaced everywhere.`);
    } else {
      makeOwnPaper(library, name, category.trim(), asset);
      // Pages that lie on the old one keep it; it is only no longer offered.
      if (replaced) library.toBin(replaced.id);
      onSay(
        replaced
          ? t`From now on the new paper is offered; pages on the old one keep it.`
          : t`“${name.trim()}” stands among the papers now.`,
      );
    }
  };
  return (
    <FormDialog
      title={replaced ? t`Replace “${replaced.name}”` : t`A paper of your own`}
      confirm={replaced ? t`Replace it` : t`Make the paper`}
      disabled={!file || (isPdfFile && !pdf)}
      onConfirm={confirm}
      onClose={onClose}
    >
      {(problem) => (
        <div className="grid gap-3">
          <label>
            <span className="mb-1 block font-semibold">{t`A picture or a PDF file`}</span>
            <input
              type="file"
              accept="image/*,application/pdf"
              data-testid="paper-file"
              className="file-input h-11 w-full border-base-300 bg-base-100"
              onChange={(event) => (
                setFile(event.target.files?.[0]),
                setPage(1),
                name === '' && setName((event.target.files?.[0]?.name ?? '').replace(/\.[^.]+$/, '').slice(0, 200))
              )}
            />
          </label>
          {isPdfFile && pdf && <PdfPages file={pdf} page={Math.min(page, pdf.pages)} onPage={setPage} />}
          {isPdfFile && !pdf && !refused && <p className="text-quiet">{t`Looking at its pages`}</p>}
          {replaced ? (
            <fieldset>
              <legend className="mb-1 font-semibold">{t`For`}</legend>
              <div className="flex gap-1.5">
                {[true, false].map((one) => (
                  <Toggle on={everywhere === one} key={String(one)} onClick={() => setEverywhere(one)} className="grow">
                    {one ? t`all pages on it` : t`new pages only`}
                  </Toggle>
                ))}
              </div>
            </fieldset>
          ) : (
            <>
              <NameField value={name} onChange={setName} problem="" />
              <label>
                <span className="mb-1 block font-semibold">{t`Category`}</span>
                <input
                  className="field"
                  value={category}
                  placeholder={t`Worksheets`}
                  onChange={(event) => setCategory(event.target.value)}
                />
              </label>
            </>
          )}
          <Problem words={problem || refused} testId="own-paper-problem" />
        </div>
      )}
    </FormDialog>
  );
}
