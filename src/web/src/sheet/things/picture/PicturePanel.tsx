import { t } from '@lingui/core/macro';
import {
  ArrowCounterClockwiseIcon,
  CropIcon,
  DropHalfIcon,
  ImagesSquareIcon,
  SubtitlesIcon,
} from '@phosphor-icons/react';
import { type ReactNode, useRef } from 'react';
import { useWorkspace } from '../../../data/useWorkspace';
import { keepWhole, pictureTypes } from '../../../data/pictureFiles';
import { sentenceOf } from '../../../core/runtime';
import type { ShownPicture } from '../../../core/thingBridge';
import type { OpenDocument } from '../../../sync/openDocument';
import { say } from '../../../ui/saying';
import { Slider } from '../../../ui/Slider';

/** The fields of a picture by their numbers in Core. */
const fields = { opacity: 18, brightness: 19, contrast: 20 } as const;

interface PicturePanelProps {
  page: OpenDocument;
  item: string;
  picture: ShownPicture;
  onCrop: () => void;
  onClear: () => void;
  /** Types under it. */
  onCaption: () => void;
}

const signed = (value: number): string => (value > 0 ? `+${value}` : value < 0 ? `−${-value}` : '0');

/** How a picture looks, and what is made of it. */
export function PicturePanel({ page, item, picture, onCrop, onClear, onCaption }: PicturePanelProps) {
  const workspace = useWorkspace();
  const { core } = workspace;
  const chooser = useRef<HTMLInputElement>(null);
  // A printed page stays as its file has it.
  const isPicture = picture.leaf === 0;
  const set = (field: number, value: number) =>
    page.perform((handle, now) => core.HandBridge.Set(handle, [item], [field], [String(value)], now));
  const replace = async (file: File | undefined) => {
    if (!file) return;
    try {
      const { asset, width, height } = await keepWhole(workspace, page.space, file);
      page.perform((handle, now) => core.ThingBridge.Replace(handle, item, asset, width, height, now));
    } catch (error) {
      say(sentenceOf(error));
    }
  };
  return (
    <section
      aria-label={t`Picture`}
      data-testid="picture-panel"
      className="flex w-max max-w-[calc(100vw-16px)] flex-wrap gap-x-5 rounded-lg border border-base-300 bg-base-100 p-3 pt-1 shadow-md"
    >
      <div className="w-[214px]">
        <Slider
          label={t`Opacity`}
          value={picture.opacity}
          min={5}
          max={100}
          step={5}
          testId="picture-opacity"
          words={(value) => `${value} %`}
          onValue={(value) => set(fields.opacity, value)}
        />
        {isPicture && (
          <>
            <Slider
              label={t`Brightness`}
              value={picture.brightness}
              min={-100}
              max={100}
              step={5}
              testId="picture-brightness"
              words={signed}
              onValue={(value) => set(fields.brightness, value)}
            />
            <Slider
              label={t`Contrast`}
              value={picture.contrast}
              min={-100}
              max={100}
              step={5}
              testId="picture-contrast"
              words={signed}
              onValue={(value) => set(fields.contrast, value)}
            />
          </>
        )}
      </div>
      <div className="grid w-[214px] content-start gap-0.5 pt-2">
        {isPicture && (
          <>
            <Row icon={<CropIcon size={20} weight="light" />} testId="picture-crop" onPress={onCrop}>
              {t`Show a part of it`}
            </Row>
            <Row icon={<DropHalfIcon size={20} weight="light" />} testId="picture-clear" onPress={onClear}>
              {t`Clear the paper`}
            </Row>
          </>
        )}
        <Row icon={<SubtitlesIcon size={20} weight="light" />} testId="picture-caption" onPress={onCaption}>
          {t`Write under it`}
        </Row>
        {isPicture && (
          <>
            <Row
              icon={<ImagesSquareIcon size={20} weight="light" />}
              testId="picture-replace"
              onPress={() => chooser.current!.click()}
            >
              {t`Another picture`}
            </Row>
            <Row
              icon={<ArrowCounterClockwiseIcon size={20} weight="light" />}
              testId="picture-as-it-was"
              onPress={() => page.perform((handle, now) => core.ThingBridge.AsItWas(handle, item, now))}
            >
              {t`As it was`}
            </Row>
          </>
        )}
        <input
          ref={chooser}
          type="file"
          accept={pictureTypes}
          aria-label={t`Another picture`}
          data-testid="picture-replacing"
          className="hidden"
          onChange={(event) => {
            void replace(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </div>
    </section>
  );
}

function Row({
  icon,
  testId,
  onPress,
  children,
}: {
  icon: ReactNode;
  testId: string;
  onPress: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      data-testid={testId}
      className="flex h-11 items-center gap-2.5 rounded-md px-2 text-start hover:bg-base-200"
      onClick={onPress}
    >
      {icon}
      {children}
    </button>
  );
}
