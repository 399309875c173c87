import { t } from '@lingui/core/macro';
import { useMemo, useState } from 'react';
import { useWorkspace } from '../../data/useWorkspace';
import { lineNumbers, penKindNumbers, penKinds, penNames } from '../../model/pens';
import { Segments } from '../../ui/Segments';
import { PickField } from '../../ui/PickField';
import { Slider } from '../../ui/Slider';
import { lengthWords } from '../../words/language';
import { itemKinds } from '../hand/things';
import type { OpenDocument } from '../../sync/openDocument';
import { connectorParts } from '../tools/shape';
import { ColourWells } from '../tools/ColourWells';
import type { Selection } from './useSelection';

/** How the selection looks; the tray stays as it is. */
export function LookPanel({ selection, page }: { selection: Selection; page: OpenDocument }) {
  const { about } = selection;
  // A box of text has letters, and round them what any box has.
  const isText = about.kinds === itemKinds.text;
  const isTable = about.kinds === itemKinds.table;
  const canFill = isText || (about.kinds & (itemKinds.shape | itemKinds.area | itemKinds.table)) !== 0;
  const onlyFills = about.kinds === itemKinds.area;
  const hasLines = (about.kinds & (itemKinds.ink | itemKinds.highlighter | itemKinds.shape)) !== 0;
  const connector = useConnectorLook(page, selection);
  const [part, setPart] = useState<'colour' | 'fill' | 'edge'>(onlyFills ? 'fill' : 'colour');
  const kept = about[part] ?? '';
  const [colour, alpha] = [kept.slice(0, 6), kept.slice(6)];
  const isThere = !(about[part] ?? '00').endsWith('00');
  return (
    <section
      aria-label={t`Look of the selection`}
      data-testid="look-panel"
      className="flex w-max gap-5 rounded-lg border border-base-300 bg-base-100 p-3 pt-1 shadow-md"
    >
      <div className="w-[214px]">
        {canFill && !onlyFills && (
          <Segments
            label={t`What is to look otherwise`}
            value={part}
            onValue={setPart}
            options={[
              isText || isTable
                ? { value: 'colour', words: t`Letters`, testId: 'look-letters' }
                : { value: 'colour', words: t`Border`, testId: 'look-border' },
              { value: 'fill', words: t`Fill`, testId: 'look-fill' },
              ...(isText || isTable
                ? [{ value: 'edge' as const, words: isTable ? t`Lines` : t`Border`, testId: 'look-edge' }]
                : []),
            ]}
          />
        )}
        <ColourWells
          colour={colour ? `#${colour}` : ''}
          onColour={(to) => selection.restyle(part, `${to.slice(1)}${isThere ? alpha || 'ff' : usualAlpha[part]}`)}
        />
        <Slider
          label={t`Opacity`}
          value={Math.round((Number.parseInt(alpha || 'ff', 16) / 255) * 100)}
          min={part === 'colour' ? 5 : 0}
          max={100}
          step={5}
          testId="look-opacity"
          words={(share) => (share === 0 ? 'none' : `${share} %`)}
          onValue={(share) =>
            selection.restyle(
              part,
              `${colour || '22302e'}${Math.round(share * 2.55)
                .toString(16)
                .padStart(2, '0')}`,
            )
          }
        />
      </div>
      {hasLines && (
        <div className="w-[196px]">
          <Slider
            label={t`Width`}
            value={Number(about.width ?? 40)}
            min={10}
            max={600}
            step={5}
            testId="look-width"
            words={lengthWords}
            onValue={(width) => selection.restyle('width', String(width))}
          />
          <PickField
            label={t`Kind of pen`}
            testId="look-pen"
            value={about.pen}
            onValue={(value) => selection.restyle('pen', value)}
            options={penKinds.map((kind) => [String(penKindNumbers[kind]), penNames[kind]])}
          />
          <PickField
            label={t`Line`}
            testId="look-line"
            value={about.line}
            onValue={(value) => selection.restyle('line', value)}
            options={lineNames}
          />
        </div>
      )}
      {(isText || isTable) && (
        <div className="w-[196px]">
          {(isTable ? [tableSlider()] : boxSliders()).map(({ field, label, least, most, step, usual, testId }) => (
            <Slider
              key={field}
              label={label}
              value={Number(about[field] ?? usual)}
              min={least}
              max={most}
              step={step}
              testId={testId}
              words={lengthWords}
              onValue={(length) => selection.restyle(field, String(length))}
            />
          ))}
        </div>
      )}
      {connector.isThere && (
        <div className="w-[196px]">
          {connectorParts.map(({ part: name, label, choices }) => (
            <PickField
              key={name}
              label={label}
              testId={`look-${name}`}
              value={connector.said(name)}
              onValue={(value) => connector.set(name, value)}
              options={choices.map(({ number, words }) => [String(number), words])}
            />
          ))}
        </div>
      )}
    </section>
  );
}

/** How the connectors among what was taken look, and another look for them. */
function useConnectorLook(page: OpenDocument, { taken, about }: Selection) {
  const { core } = useWorkspace();
  const told = useMemo(
    () =>
      (about.kinds & itemKinds.shape) !== 0 && taken.items.length <= mostLooked
        ? (JSON.parse(core.DiagramBridge.Look(page.handle, taken.items)) as Record<string, number>)
        : {},
    [core, page, taken, about],
  );
  return {
    isThere: (told.count ?? 0) > 0,
    said: (name: ConnectorPart) => (told[name] === undefined ? undefined : String(told[name])),
    set: (name: ConnectorPart, value: string) => {
      const look = { route: -1, start: -1, end: -1, [name]: Number(value) };
      page.performTogether((handle, now) =>
        core.DiagramBridge.SetLook(handle, taken.items, look.route, look.start, look.end, now),
      );
    },
  };
}

type ConnectorPart = (typeof connectorParts)[number]['part'];

/** Among more things nobody looks for connectors. */
const mostLooked = 500;
/** Lengths of the box of a text, 0.01 mm. */
const tableSlider = () =>
  ({
    field: 'edgeWidth',
    label: t`Width of the lines`,
    least: 5,
    most: 200,
    step: 5,
    usual: 18,
    testId: 'look-edge-width',
  }) as const;
const boxSliders = () =>
  [
    {
      field: 'edgeWidth',
      label: t`Width of the border`,
      least: 10,
      most: 200,
      step: 5,
      usual: 30,
      testId: 'look-edge-width',
    },
    { field: 'corner', label: t`Round corners`, least: 0, most: 1000, step: 50, usual: 0, testId: 'look-corner' },
    { field: 'padding', label: t`Room within`, least: 0, most: 1000, step: 25, usual: 0, testId: 'look-padding' },
  ] as const;
/** A fill lets through what lies under it. */
const usualAlpha = { colour: 'ff', fill: '59', edge: 'ff' };
const lineNames: [string, string][] = [
  [String(lineNumbers.solid), t`Through`],
  [String(lineNumbers.dashed), t`Dashed`],
  [String(lineNumbers.dotted), t`Dotted`],
];
