import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { copyText } from '../ui/saying';
import { sendJson } from '../server/api';
import { sentenceOf } from '../core/runtime';

/** Makes a link by which one person makes an account. */
export function Invite() {
  const [link, setLink] = useState('');
  const [said, say] = useState('');
  const make = async () => {
    say('');
    try {
      setLink((await sendJson<{ link: string }>('POST', '/api/invitations')).link);
    } catch (error) {
      say(sentenceOf(error));
    }
  };
  return (
    <>
      {link ? (
        <div className="flex gap-2">
          <input
            readOnly
            aria-label={t`The link`}
            className="field min-w-0 grow"
            value={link}
            data-testid="invitation"
            onFocus={(event) => event.target.select()}
          />
          <Button className="shrink-0" onClick={() => copyText(link)}>{t`Copy`}</Button>
        </div>
      ) : (
        <Button data-testid="invite" onClick={() => void make()}>{t`Make a link`}</Button>
      )}
      {link && (
        <p className="mt-2 text-[13px] text-quiet">{t`It is shown this once. Whoever opens it first makes an account with it.`}</p>
      )}
      <p role="status" className="mt-1">
        {said}
      </p>
    </>
  );
}
