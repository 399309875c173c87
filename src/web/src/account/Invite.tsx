import { useState } from 'react';
import { copyText } from '../ui/saying';
import { sendJson } from '../server/api';

/** Makes a link by which one person makes an account. */
export function Invite() {
  const [link, setLink] = useState('');
  const [said, say] = useState('');
  const make = async () => {
    say('');
    try {
      setLink((await sendJson<{ link: string }>('POST', '/api/invitations')).link);
    } catch (error) {
      say((error as Error).message);
    }
  };
  return (
    <>
      {link ? (
        <div className="flex gap-2">
          <input
            readOnly
            aria-label="The link"
            className="field min-w-0 grow"
            value={link}
            data-testid="invitation"
            onFocus={(event) => event.target.select()}
          />
          <button type="button" className="quiet-button h-11 shrink-0" onClick={() => copyText(link)}>
            Copy
          </button>
        </div>
      ) : (
        <button type="button" className="quiet-button h-11" data-testid="invite" onClick={() => void make()}>
          Make a link
        </button>
      )}
      {link && (
        <p className="mt-2 text-[13px] text-quiet">
          It is shown this once. Whoever opens it first makes an account with it.
        </p>
      )}
      <p role="status" className="mt-1">
        {said}
      </p>
    </>
  );
}
