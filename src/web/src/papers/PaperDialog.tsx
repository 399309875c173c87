import { t } from '@lingui/core/macro';
import { type ReactNode, useMemo, useState } from 'react';
import { sentenceOf } from '../core/runtime';
import { defaultPaper } from '../model/items';
import { useLibrary } from '../data/useLibrary';
import { useWorkspace } from '../data/useWorkspace';
import { FormDialog, Problem } from '../ui/FormDialog';
import { type Paper, paperChoices, wordsOfPaper, writePaper } from '../model/drawing';
import { ownPapersOf } from '../data/ownPapers';
import { PaperPicture } from './PaperPicture';
import { PaperSettings } from './PaperSettings';

interface PaperDialogProps {
  title: string;
  confirm: string;
  value: string;
  /** The library whose own papers are offered; none are without. */
  space?: string;
  /** What else is asked, below the settings. */
  extra?: ReactNode;
  onConfirm: (paper: string) => void | Promise<void>;
  onClose: () => void;
}

/** Chooses a paper: ready ones on the left, on the right the sheet as it will be, with what can be set of it. */
export function PaperDialog({ title, confirm, value, space, extra, onConfirm, onClose }: PaperDialogProps) {
  const { core } = useWorkspace();
  const library = useLibrary(space ?? '');
  const { designs, ready } = paperChoices(core);
  const parse = (text: string) => read(core.PaperBridge.Read, text);
  // What is typed may for a moment be no paper; it is kept as typed, and the last proper one is shown.
  const [draft, setDraft] = useState<Paper>(() => (parse(value)[0] ?? parse(defaultPaper)[0])!);
  const [proper, setProper] = useState(value);
  const text = writePaper(draft);
  const [paper, problem] = useMemo(() => read(core.PaperBridge.Read, text), [core, text]);
  const shown = paper ?? draft;
  const take = (next: Paper) => {
    setDraft(next);
    if (parse(writePaper(next))[0]) setProper(writePaper(next));
  };
  const change = (changed: Partial<Paper>) => take({ ...shown, ...changed });
  const choose = (design: string) => {
    const chosen = parse(`${shown.size}-${design}`)[0]!;
    const usual = designs.find((one) => one.name === chosen.design)!;
    // The size stays; all that belongs to the design is taken anew.
    const { own: _, ...rest } = {
      ...chosen,
      growth: shown.growth,
      grain: shown.grain,
      across: usual.across || (shown.across && !designs.find((one) => one.name === shown.design)!.across),
    };
    take(rest);
  };
  const own = library ? ownPapersOf(library) : [];
  const groups = [...new Set(designs.map((design) => design.group))];
  return (
    <FormDialog
      title={title}
      confirm={confirm}
      wide
      disabled={!paper}
      onConfirm={() => onConfirm(text)}
      onClose={onClose}
    >
      {(refused) => (
        <div className="grid h-[min(560px,calc(100vh-220px))] grid-cols-[minmax(0,1fr)_220px_236px] gap-6 max-lg:grid-cols-[minmax(0,1fr)_236px] max-sm:grid-cols-1 max-sm:overflow-y-auto">
          <div className="min-h-0 overflow-y-auto pe-2 max-sm:overflow-visible" data-testid="ready-papers">
            {own.length > 0 && (
              <section aria-label={t`Your own`} className="mb-3">
                <h3 className="mb-1.5 text-[15px]">{t`Your own`}</h3>
                <ul className="flex flex-wrap gap-2">
                  {own.map((node) => (
                    <ReadyPaper
                      key={node.id}
                      words={node.name}
                      paper={`${shown.size}${shown.across ? '.across' : ''}-blank-710-own.${node.id.replaceAll('-', '')}`}
                      chosen={shown.own === node.id}
                      space={space}
                      onChoose={() => take({ ...shown, design: 'blank', spacing: 710, own: node.id })}
                    />
                  ))}
                </ul>
              </section>
            )}
            {groups.map((group) => (
              <section key={group} aria-label={group} className="mb-3">
                <h3 className="mb-1.5 text-[15px]">{group}</h3>
                <ul className="flex flex-wrap gap-2">
                  {ready
                    .filter(
                      (one) => designs.find((design) => design.name === one.design.split('-')[0])!.group === group,
                    )
                    .map((one) => (
                      <ReadyPaper
                        key={one.design}
                        words={one.words}
                        paper={`a4-${one.design}`}
                        chosen={!shown.own && text.includes(`-${one.design}`)}
                        onChoose={() => choose(one.design)}
                      />
                    ))}
                </ul>
              </section>
            ))}
          </div>
          <div
            className="grid min-h-0 place-content-start justify-items-center gap-2 bg-desk p-3 max-lg:hidden"
            data-testid="paper-preview"
          >
            <PaperPicture paper={proper} width={192} height={440} {...(space ? { space } : {})} />
            <p className="text-center text-[13px] text-quiet">{wordsOfPaper(core, proper)}</p>
          </div>
          <div className="min-h-0 overflow-y-auto pe-1 max-sm:overflow-visible">
            <PaperSettings paper={shown} onChange={change} />
            {extra}
            <Problem words={problem || refused} testId="paper-problem" />
          </div>
        </div>
      )}
    </FormDialog>
  );
}

function ReadyPaper({
  words,
  paper,
  chosen,
  space,
  onChoose,
}: {
  words: string;
  paper: string;
  chosen: boolean;
  space?: string | undefined;
  onChoose: () => void;
}) {
  return (
    <li>
      <button
        type="button"
        aria-pressed={chosen}
        data-testid="ready-paper"
        data-name={words}
        onClick={onChoose}
        className={`flex h-[136px] w-[92px] flex-col items-center gap-1 rounded-md border p-1.5 ${chosen ? 'border-primary bg-base-200' : 'border-transparent hover:border-base-300'}`}
      >
        <span className="grid h-[88px] place-items-center">
          <PaperPicture paper={paper} width={64} height={86} {...(space ? { space } : {})} />
        </span>
        <span className={`line-clamp-2 text-center text-[12.5px] leading-tight ${chosen ? 'font-semibold' : ''}`}>
          {words}
        </span>
      </button>
    </li>
  );
}

function read(reader: (text: string) => string, text: string): [Paper | undefined, string] {
  try {
    return [JSON.parse(reader(text)) as Paper, ''];
  } catch (problem) {
    return [undefined, sentenceOf(problem)];
  }
}
