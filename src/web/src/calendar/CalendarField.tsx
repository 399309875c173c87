import { t } from '@lingui/core/macro';
/** A calendar to be read: a file, or an address it is had from. */
export interface CalendarSource {
  file?: File;
  address: string;
}

/** Chooses a calendar. */
export function CalendarField({
  source,
  onChange,
}: {
  source: CalendarSource;
  onChange: (source: CalendarSource) => void;
}) {
  return (
    <div className="grid gap-3">
      <label>
        <span className="mb-1 block font-semibold">{t`A calendar file`}</span>
        <input
          type="file"
          accept=".ics,text/calendar"
          data-testid="calendar-file"
          className="file-input h-11 w-full border-base-300 bg-base-100"
          onChange={(event) =>
            onChange(event.target.files?.[0] ? { ...source, file: event.target.files[0] } : { address: source.address })
          }
        />
      </label>
      <label>
        <span className="mb-1 block font-semibold">{t`or its address`}</span>
        <input
          className="field"
          inputMode="url"
          placeholder="https://…/calendar.ics"
          value={source.address}
          disabled={source.file !== undefined}
          data-testid="calendar-address"
          onChange={(event) => onChange({ ...source, address: event.target.value })}
        />
      </label>
    </div>
  );
}
