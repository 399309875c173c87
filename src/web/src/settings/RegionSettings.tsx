import { t } from '@lingui/core/macro';
import { type ReactNode, useState } from 'react';
import { usePersonal } from '../data/usePersonal';
import { clockWords, dayWords } from '../model/time';
import { lengthUnit, type LengthUnit, setLengthUnit } from '../model/units';
import { setTimeZone, zoneName } from '../model/zone';
import { Labelled } from '../ui/Labelled';
import { Segments } from '../ui/Segments';

const zones = Intl.supportedValuesOf('timeZone');

/** Units, the first day of the week, and the time zone. */
export function RegionSettings() {
  const personal = usePersonal();
  const [now] = useState(() => new Date());
  if (!personal) return null;
  const { habits, setHabits } = personal;
  return (
    <div className="grid gap-5" data-testid="region">
      <Choice title={t`Lengths`}>
        <Segments<LengthUnit>
          label={t`Lengths`}
          options={[
            { value: 'mm', words: t`Millimetres`, testId: 'unit-mm' },
            { value: 'in', words: t`Inches`, testId: 'unit-in' },
          ]}
          value={habits.unit ?? lengthUnit()}
          onValue={(unit) => {
            setLengthUnit(unit);
            setHabits({ unit });
          }}
        />
      </Choice>
      <Choice title={t`The week begins on`}>
        <Segments<'monday' | 'sunday'>
          label={t`The week begins on`}
          options={[
            { value: 'monday', words: t`Monday`, testId: 'week-monday' },
            { value: 'sunday', words: t`Sunday`, testId: 'week-sunday' },
          ]}
          value={habits.week}
          onValue={(week) => setHabits({ week })}
        />
      </Choice>
      <Labelled label={t`Time zone`}>
        {(id) => (
          <>
            <select
              id={id}
              className="select h-11 w-full"
              data-testid="zone"
              value={habits.zone}
              onChange={({ target: { value: zone } }) => {
                setTimeZone(zone);
                setHabits({ zone });
              }}
            >
              <option value="">{t`As this device: ${Intl.DateTimeFormat().resolvedOptions().timeZone}`}</option>
              {zones.map((zone) => (
                <option key={zone} value={zone}>
                  {zone.replaceAll('_', ' ')}
                </option>
              ))}
            </select>
            <p className="mt-1 text-[13px] text-quiet" data-testid="zone-now">
              {t`There it is ${dayWords(now)}, ${clockWords(now)} (${zoneName()}).`}
            </p>
          </>
        )}
      </Labelled>
    </div>
  );
}

function Choice({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div>
      <p className="font-semibold">{title}</p>
      {children}
    </div>
  );
}
