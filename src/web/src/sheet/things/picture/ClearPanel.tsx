import { t } from '@lingui/core/macro';
import { useEffect, useRef, useState } from 'react';
import { mostEdge } from '../../../data/redrawn';
import { useWorkspace } from '../../../data/useWorkspace';
import { sentenceOf } from '../../../core/runtime';
import type { ShownPicture } from '../../../core/thingBridge';
import type { OpenDocument } from '../../../sync/openDocument';
import { Button } from '../../../ui/Button';
import { say } from '../../../ui/saying';
import { Slider } from '../../../ui/Slider';
import { clearPaper } from './clearing';

/** How large the picture is tried out, dots along its longer side. */
const tried = 460;
const usualStrength = 45;

interface ClearPanelProps {
  page: OpenDocument;
  item: string;
  picture: ShownPicture;
  onDone: () => void;
}

/** Clears the paper in a photographed drawing: tried out small beside the slider, then done to the whole of it. */
export function ClearPanel({ page, item, picture, onDone }: ClearPanelProps) {
  const { core, assets } = useWorkspace();
  const [strength, setStrength] = useState(picture.cleared || usualStrength);
  const [file, setFile] = useState<Blob>();
  const [share, setShare] = useState<number>();
  const shown = useRef<HTMLCanvasElement>(null);
  const isOver = useRef(false);

  useEffect(() => {
    const ended = new AbortController();
    isOver.current = false;
    assets.whenHere(page.space, picture.original, ended.signal).then(setFile, () => {});
    return () => {
      isOver.current = true;
      ended.abort();
    };
  }, [assets, page, picture.original]);

  useEffect(() => {
    if (!file || share !== undefined) return undefined;
    let isLast = true;
    void clearPaper(core, file, strength, tried, () => isLast).then(
      (made) => {
        const canvas = shown.current;
        if (!made || !canvas || !isLast) return;
        [canvas.width, canvas.height] = [made.width, made.height];
        canvas.getContext('2d')!.drawImage(made, 0, 0);
        canvas.dataset.strength = String(strength);
      },
      (error: unknown) => say(sentenceOf(error)),
    );
    return () => {
      isLast = false;
    };
  }, [core, file, strength, share !== undefined]);

  const keep = async () => {
    if (!file) return;
    setShare(0);
    try {
      const made = await clearPaper(core, file, strength, mostEdge, (done) => {
        if (!isOver.current) setShare(done);
        return !isOver.current;
      });
      if (!made) return;
      // A browser that does not write WebP gives PNG instead.
      const { asset } = await assets.keep(page.space, await made.convertToBlob({ type: 'image/webp', quality: 0.92 }));
      page.perform((handle, now) => core.ThingBridge.Clear(handle, item, asset, strength, now));
      onDone();
    } catch (error) {
      say(sentenceOf(error));
      setShare(undefined);
    }
  };

  return (
    <section
      aria-label={t`Clear the paper`}
      data-testid="clear-panel"
      className="w-[300px] rounded-lg border border-base-300 bg-base-100 p-3 shadow-md"
    >
      <div className="grid h-[190px] place-items-center overflow-hidden rounded-md border border-base-300 bg-paper">
        {file ? (
          <canvas ref={shown} data-testid="clear-preview" className="max-h-full max-w-full" />
        ) : (
          <span className="px-3 text-center text-[13px] text-quiet">{t`The picture is not on this device yet.`}</span>
        )}
      </div>
      {share === undefined ? (
        <>
          <Slider
            label={t`How much goes`}
            value={strength}
            min={0}
            max={100}
            step={5}
            testId="clear-strength"
            words={(value) => (value < 30 ? t`little` : value < 65 ? t`ruling too` : t`much`)}
            onDraft={setStrength}
            onValue={setStrength}
          />
          <div className="mt-2 flex gap-2">
            <Button
              look="primary"
              className="grow"
              disabled={!file}
              data-testid="clear-keep"
              onClick={() => void keep()}
            >
              {t`Clear the paper`}
            </Button>
            <Button look="plain" onClick={onDone}>{t`Leave as it is`}</Button>
          </div>
        </>
      ) : (
        <div className="mt-3 flex items-center gap-3">
          <progress
            aria-label={t`Clearing the paper`}
            className="progress progress-primary grow"
            value={Math.round(share * 100)}
            max={100}
          />
          <Button onClick={onDone} data-testid="clear-cancel">{t`Cancel`}</Button>
        </div>
      )}
    </section>
  );
}
