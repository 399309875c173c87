import { may } from '../data/rights';
import { t } from '@lingui/core/macro';
import { ColourField } from '../ui/looks';
import { PaperField } from '../papers/PaperField';
import { useLibraries } from '../data/useLibrary';
import { usePersonal } from '../data/usePersonal';
import { penNames } from '../model/pens';
import { useSession } from '../server/session';
import { lengthWords } from '../words/language';

/** What a jot is made on and which pen is taken up for it; in which notebook today's page is made. */
export function JotSettings() {
  const { spaces } = useSession();
  const personal = usePersonal();
  const libraries = useLibraries();
  if (!personal || !libraries) return null;
  const { jotPreset: preset, todayPreset: today } = personal;
  const notebooks = spaces
    .filter((space) => may(space, 'Write'))
    .flatMap((space) =>
      [...libraries.get(space.id)!.nodes.values()]
        .filter((node) => node.kind === 'notebook' && !node.inBin && !node.jot)
        .map((node) => ({ space, node })),
    );
  const tray = personal.tray();
  return (
    <div className="grid grid-cols-2 gap-x-6 gap-y-3 max-sm:grid-cols-1" data-testid="jot-settings">
      <PaperField
        label={t`Paper of a jot`}
        value={preset.paper}
        testId="jot-paper"
        onChange={(paper) => personal.setJotPreset({ ...preset, paper })}
      />
      <label>
        <span className="mb-1 block font-semibold">{t`Pen taken up`}</span>
        <select
          className="select h-11 w-full border-base-300 bg-base-100"
          value={preset.pen}
          onChange={(event) => personal.setJotPreset({ ...preset, pen: Number(event.target.value) })}
        >
          {tray.map((pen, i) => (
            <option key={i} value={i}>
              {i + 1}: {penNames[pen.kind]}, {lengthWords(pen.width)}
            </option>
          ))}
        </select>
      </label>
      <label>
        <span className="mb-1 block font-semibold">{t`Notebook of today's page`}</span>
        <select
          className="select h-11 w-full border-base-300 bg-base-100"
          value={today?.notebook ?? ''}
          data-testid="today-notebook"
          onChange={(event) => {
            const chosen = notebooks.find(({ node }) => node.id === event.target.value);
            if (chosen)
              personal.setTodayPreset({
                space: chosen.space.id,
                notebook: chosen.node.id,
                paper: today?.paper ?? preset.paper,
              });
          }}
        >
          {!today && <option value="">{t`One of its own`}</option>}
          {notebooks.map(({ space, node }) => (
            <option key={node.id} value={node.id}>
              {node.name} ({space.name})
            </option>
          ))}
        </select>
      </label>
      <PaperField
        label={t`Paper of today's page`}
        value={today?.paper ?? preset.paper}
        testId="today-paper"
        disabled={!today}
        onChange={(paper) => today && personal.setTodayPreset({ ...today, paper })}
      />
      <ColourField value={preset.colour} onChange={(colour) => personal.setJotPreset({ ...preset, colour })} />
    </div>
  );
}
