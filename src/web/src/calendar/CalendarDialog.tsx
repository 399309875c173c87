import { plural, t } from '@lingui/core/macro';
import { useState } from 'react';
import { sentenceOf } from '../core/runtime';
import { say } from '../ui/saying';
import type { OpenNotebook } from '../data/openNotebooks';
import type { Notebook } from '../data/useNotebook';
import { Unreachable } from '../server/api';
import { useWorkspace } from '../data/useWorkspace';
import { FormDialog, Problem } from '../ui/FormDialog';
import { CalendarField, type CalendarSource } from './CalendarField';
import { aboutCalendar, readCalendar } from './readCalendar';

/** Takes a newer calendar over into a planner: entries are updated, ink stays, and what disappeared is marked. */
export function CalendarDialog({
  at,
  notebook,
  onClose,
}: {
  at: OpenNotebook;
  notebook: Notebook;
  onClose: () => void;
}) {
  const { core } = useWorkspace();
  const key = `quill.calendar.${at.notebook}`;
  const [source, setSource] = useState<CalendarSource>(() => ({ address: localStorage.getItem(key) ?? '' }));
  return (
    <FormDialog
      title={t`Calendar of this planner`}
      confirm={t`Take it over`}
      disabled={!source.file && !source.address}
      onClose={onClose}
      onConfirm={async () => {
        const [first, last] = notebook.planner.split(' ')[0]!.split('/');
        try {
          const calendar = await readCalendar(source, first!, last!);
          await notebook.performAll((handle, now) =>
            core.PlannerBridge.TakeCalendar(
              handle,
              at.notebook,
              calendar.entries.map((entry) => entry.id),
              calendar.entries.map((entry) => entry.value),
              now,
            ),
          );
          const changes = core.PlannerBridge.Taken();
          if (source.address) localStorage.setItem(key, source.address);
          say(
            `${changes === 0 ? t`Nothing has changed in the calendar.` : plural(changes, { one: '# entry was changed.', other: '# entries were changed.' })}${aboutCalendar(calendar)}`,
          );
        } catch (problem) {
          throw problem instanceof Unreachable
            ? new Error(t`Reading a calendar needs a connection. Nothing was changed.`)
            : new Error(sentenceOf(problem));
        }
      }}
    >
      {(problem) => (
        <>
          <CalendarField source={source} onChange={setSource} />
          <p className="pt-2 text-[13.5px] text-quiet">{t`Entries are told by their own marks, so what you have written beside them stays with them.`}</p>
          <Problem words={problem} testId="calendar-problem" />
        </>
      )}
    </FormDialog>
  );
}
