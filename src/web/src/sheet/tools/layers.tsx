import { t } from '@lingui/core/macro';
import {
  ArrowDownIcon,
  ArrowUpIcon,
  EraserIcon,
  EyeIcon,
  EyeSlashIcon,
  LockSimpleIcon,
  LockSimpleOpenIcon,
  PlusIcon,
  StackIcon,
  StackSimpleIcon,
} from '@phosphor-icons/react';
import { useMemo, useState } from 'react';
import { type Core, sentenceOf } from '../../core/runtime';
import { useSession } from '../../server/session';
import type { OpenDocument } from '../../sync/openDocument';
import { say } from '../../ui/saying';
import { SignButton } from '../../ui/Button';
import { Slider } from '../../ui/Slider';
import { firstLayer } from '../hand/things';
import { unfolding } from './offering';
import type { Offer, PanelProps, Tools } from '../hand/tool';
import { Unfolded } from './Unfolded';

export interface Layer {
  id: string;
  name: string;
  hidden: boolean;
  locked: boolean;
  opacity: number;
  author: string;
}

export const layerFields = { name: 1, hidden: 3, locked: 4, opacity: 5, mergedInto: 6, erased: 7 } as const;

/** The layers of a page, anew with every change of it. */
export function useLayers(core: Core, page: OpenDocument): Layer[] {
  const version = page.getVersion();
  return useMemo(() => JSON.parse(core.LayerBridge.All(page.handle)) as Layer[], [core, page, version]);
}

export function nameOfLayer(layer: Layer): string {
  return layer.name || t`The page`;
}

/** The layers of the page. */
export const layers: Offer = {
  ...unfolding('layers'),
  words: () => t`Layers`,
  title: t`Layers`,
  icon: () => StackIcon,
  key: 'g',
  Panel: LayersPanel,
};

/** On a layer that is hidden or locked nothing is written: it is said, with the way to open it; the panel to change it unfolds. */
export function mayWriteOnLayer(core: Core, page: OpenDocument, layer: string, tools: Tools): boolean {
  const on = (JSON.parse(core.LayerBridge.All(page.handle)) as Layer[]).find((one) => one.id === (layer || firstLayer));
  if (!on || (!on.hidden && !on.locked)) return true;
  const fields = [...(on.hidden ? [layerFields.hidden] : []), ...(on.locked ? [layerFields.locked] : [])];
  const name = nameOfLayer(on);
  say(
    on.hidden
      ? t`“${name}” is hidden, so nothing is written on it.`
      : t`“${name}” is locked, so nothing is written on it.`,
    {
      words: on.hidden ? t`Show it` : t`Unlock it`,
      do: () => {
        for (const field of fields) page.perform((handle, now) => core.LayerBridge.Set(handle, on.id, field, '', now));
      },
    },
  );
  tools.unfold('layers');
  return false;
}

/** The layers of the page, the foremost on top; the one that is written on shows what can be done to it. */
function LayersPanel({ tools, sheet: { core, page, people } }: PanelProps) {
  const { person } = useSession();
  const all = useLayers(core, page);
  const version = page.getVersion();
  const counts = useMemo(() => core.LayerBridge.Counts(page.handle), [core, page, version]);
  const [name, setName] = useState<string>();
  const [problem, setProblem] = useState('');
  const current =
    all.find((layer) => layer.id === tools.layerOf(page.id)) ?? all.find((layer) => layer.id === firstLayer)!;
  const index = all.indexOf(current);
  const set = (field: keyof typeof layerFields, value: string, layer = current) =>
    page.perform((handle, now) => core.LayerBridge.Set(handle, layer.id, layerFields[field], value, now));
  const add = () => {
    const id = crypto.randomUUID();
    page.performTogether((handle, now) =>
      core.LayerBridge.Add(handle, id, t`Layer ${all.length + 1}`, current.id, now),
    );
    tools.setLayer(page.id, id);
  };
  const move = (to: number) =>
    page.performTogether((handle, now) =>
      core.LayerBridge.Move(handle, current.id, to < 0 ? '' : all.filter((layer) => layer !== current)[to]!.id, now),
    );
  const rename = () => {
    try {
      if (name !== undefined && name !== current.name) set('name', name);
      setProblem('');
    } catch (error) {
      setProblem(sentenceOf(error));
    }
    setName(undefined);
  };
  return (
    <Unfolded title={t`Layers`} testId="layers-panel" hint={t`What is chosen here is written on.`}>
      <ul className="-mx-2 mt-1.5">
        {all.toReversed().map((layer) => (
          <li
            key={layer.id}
            data-testid="layer"
            data-name={nameOfLayer(layer)}
            className={`flex items-center rounded-md ${layer === current ? 'bg-base-200' : ''}`}
          >
            <button
              type="button"
              aria-pressed={layer === current}
              className={`h-11 min-w-0 grow truncate px-2 text-start ${layer === current ? 'font-semibold' : ''} ${layer.hidden ? 'text-quiet' : ''}`}
              onClick={() => tools.setLayer(page.id, layer.id === firstLayer ? '' : layer.id)}
            >
              {nameOfLayer(layer)}{' '}
              <span className="text-[12.5px] font-normal text-quiet">
                {[
                  counts[all.indexOf(layer)],
                  layer.author !== person.id && people.find((one) => one.id === layer.author)?.name,
                ]
                  .filter((part) => part !== false && part !== undefined)
                  .join(', ')}
              </span>
            </button>
            <SignButton
              label={layer.locked ? t`Unlock` : t`Lock`}
              data-testid="layer-lock"
              onClick={() => set('locked', layer.locked ? '' : '1', layer)}
            >
              layer.locked ? <LockSimpleIcon size={18} /> : <LockSimpleOpenIcon size={18} weight="light" />
            </SignButton>
            <SignButton
              label={layer.hidden ? t`Show` : t`Hide`}
              data-testid="layer-hide"
              onClick={() => set('hidden', layer.hidden ? '' : '1', layer)}
            >
              layer.hidden ? <EyeSlashIcon size={18} /> : <EyeIcon size={18} weight="light" />
            </SignButton>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="mt-1 flex h-10 w-full items-center gap-2 rounded-md text-[13px] hover:bg-base-200"
        data-testid="add-layer"
        onClick={add}
      >
        <PlusIcon size={18} /> {t`A layer in front of this one`}
      </button>
      <div className="mt-2 border-t border-base-300 pt-2">
        <input
          aria-label={t`Name of the layer`}
          data-testid="layer-name"
          className="h-10 w-full rounded-md border border-base-300 bg-base-100 px-2"
          value={name ?? nameOfLayer(current)}
          onChange={(event) => setName(event.target.value)}
          onBlur={rename}
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
        />
        {problem && (
          <p role="alert" className="mt-1 text-[13px] text-error">
            {problem}
          </p>
        )}
        <Slider
          label={t`Opacity`}
          value={current.opacity}
          min={10}
          max={100}
          step={5}
          testId="layer-opacity"
          words={(share) => `${share} %`}
          onValue={(share) => set('opacity', String(share))}
        />
        <div className="mt-2 flex justify-between">
          <SignButton
            label={t`Forward`}
            data-testid="layer-up"
            disabled={index === all.length - 1}
            onClick={() => move(index)}
          >
            <ArrowUpIcon size={18} />
          </SignButton>
          <SignButton label={t`Back`} data-testid="layer-down" disabled={index === 0} onClick={() => move(index - 2)}>
            <ArrowDownIcon size={18} />
          </SignButton>
          <SignButton
            label={t`Merge into the one below`}
            data-testid="layer-merge"
            disabled={index === 0 || current.id === firstLayer}
            onClick={() => {
              set('mergedInto', all[index - 1]!.id);
              tools.setLayer(page.id, all[index - 1]!.id === firstLayer ? '' : all[index - 1]!.id);
            }}
          >
            <StackSimpleIcon size={18} weight="light" />
          </SignButton>
          <SignButton
            label={t`Erase this layer with all on it; undo has it back`}
            data-testid="layer-erase"
            disabled={current.id === firstLayer}
            onClick={() => {
              set('erased', '1');
              tools.setLayer(page.id, '');
            }}
          >
            <EraserIcon size={18} weight="light" />
          </SignButton>
        </div>
      </div>
    </Unfolded>
  );
}
