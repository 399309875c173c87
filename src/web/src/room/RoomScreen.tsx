import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { Door } from '../account/Door';
import { sentenceOf } from '../core/runtime';
import { Field } from '../ui/Field';
import { fetchSheet } from './roomSheet';
import { RoomSheet } from './RoomSheet';

/** A screen for the room: by the code that the leader shows, the sheet alone, as large as the screen. */
export function RoomScreen() {
  const [code, setCode] = useState(() => location.hash.slice(1));
  const [isOver, setOver] = useState(false);
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const enter = async (typed: string) => {
    setBusy(true);
    try {
      await fetchSheet(typed);
      // A reload comes back to it.
      history.replaceState(null, '', `/room#${encodeURIComponent(typed.trim())}`);
      setOver(false);
      setProblem('');
      setCode(typed);
    } catch (failed) {
      setProblem(sentenceOf(failed));
    } finally {
      setBusy(false);
    }
  };
  if (code && !isOver)
    return (
      <RoomSheet
        code={decodeURIComponent(code)}
        onOver={() => {
          history.replaceState(null, '', '/room');
          setCode('');
          setOver(true);
        }}
      />
    );
  return (
    <Door
      title={isOver ? t`The lectern is closed` : t`A screen for the room`}
      about={t`Type the code that whoever teaches shows you. Nobody signs in here.`}
      submit={t`Show the sheet`}
      busy={busy}
      problem={problem}
      testId="room-form"
      onSubmit={(text) => void enter(text('code'))}
    >
      <Field label={t`Code`} name="code" autoComplete="off" autoFocus />
    </Door>
  );
}
