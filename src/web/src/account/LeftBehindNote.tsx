import { plural, t } from '@lingui/core/macro';
import { useEffect, useState } from 'react';
import { leaveDevice, type LeftBehind, leftBehind } from '../sync/leaving';

/** At the door: what is still on this device of people who left it with something unsent. */
export function LeftBehindNote() {
  const [left, setLeft] = useState<LeftBehind[]>([]);
  const [sure, setSure] = useState(false);
  useEffect(() => void leftBehind().then(setLeft), []);
  if (left.length === 0) return null;
  const unsent = left.reduce((sum, one) => sum + one.unsent, 0);
  const clear = async () => {
    for (const { person } of left) await leaveDevice(person, true);
    setLeft([]);
  };
  return (
    <div className="mt-6 border-t border-base-300 pt-4 text-[13px]" data-testid="left-behind">
      <p>
        {plural(unsent, {
          one: 'One change made on this device has not been sent yet. It is sent when whoever made it signs in here again, and shown to nobody else.',
          other:
            '# changes made on this device have not been sent yet. They are sent when whoever made them signs in here again, and shown to nobody else.',
        })}
      </p>
      <button
        type="button"
        className={`mt-1 h-11 underline underline-offset-4 ${sure ? 'text-error' : 'text-quiet'}`}
        data-testid="clear-left-behind"
        onClick={() => (sure ? void clear() : setSure(true))}
      >
        {sure ? t`Yes, lose it for good` : t`Take it off this device`}
      </button>
    </div>
  );
}
