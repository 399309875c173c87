import { useState } from 'react';
import { chooseTheme, type ThemeChoice, themeChoice } from '../ui/theme';
import { JotSettings } from '../settings/JotSettings';
import { TermsField } from '../settings/TermsField';
import { Avatar } from '../ui/Avatar';
import { openKeys } from '../ui/keysSheet';
import { sendJson } from '../server/api';
import { ChangeForm } from './ChangeForm';
import { DeviceKeeping } from './DeviceKeeping';
import { Devices } from './Devices';
import { Field } from '../ui/Field';
import { Invite } from './Invite';
import { Part } from './Part';
import { SecondFactor } from './SecondFactor';
import { SignOut } from './SignOut';
import { type Session, useSession } from '../server/session';
import { fetchSession } from '../sync/entering';
import { Usage } from '../settings/Usage';

/** Name, e-mail, password, day or night, signing out. */
export function AccountScreen({ onChanged }: { onChanged: (session: Session | null) => void }) {
  const { person, spaces } = useSession();
  const details = (body: Record<string, string>) =>
    sendJson('PUT', '/api/people/me', body).then(async () => onChanged(await fetchSession()));
  return (
    <div className="relative h-full overflow-y-auto">
      <div className="mx-auto max-w-[860px] px-10 pb-16 pt-7 max-sm:px-5">
        <header className="flex items-center gap-4 border-b border-base-300 pb-5">
          <Avatar name={person.name} colour={person.colour} size={52} />
          <div className="grow">
            <h1 className="text-[30px] leading-tight">{person.name}</h1>
            <p className="text-quiet">{person.email}</p>
          </div>
          <SignOut />
        </header>
        <Part title="Name" about="As the others in your group see it, on pages you write and beside your pen.">
          <ChangeForm
            done="The name is changed."
            submit="Change name"
            send={(form) => details({ name: form.name! })}
            testId="name-form"
          >
            <Field label="Name" name="name" value={person.name} autoComplete="name" />
          </ChangeForm>
        </Part>
        <Part title="E-mail" about="You sign in with it. It is shown to nobody.">
          <ChangeForm
            done="The address is changed."
            submit="Change e-mail"
            send={(form) => details({ email: form.email!, password: form.password! })}
            testId="email-form"
          >
            <Field label="New e-mail" name="email" type="email" autoComplete="email" />
            <Field label="Your password" name="password" type="password" autoComplete="current-password" />
          </ChangeForm>
        </Part>
        <Part
          title="Password"
          about="Changing it signs you out on all other devices. What they hold unsent stays on them until you sign in there again."
        >
          <ChangeForm
            done="The password is changed."
            submit="Change password"
            send={(form) => sendJson('PUT', '/api/people/me/password', { old: form.old, new: form.new })}
            testId="password-form"
          >
            <Field label="Old password" name="old" type="password" autoComplete="current-password" />
            <Field
              label="New password"
              name="new"
              type="password"
              autoComplete="new-password"
              hint="At least 8 characters"
            />
          </ChangeForm>
        </Part>
        <Part
          title="Second factor"
          about="With it on, signing in asks for a code as well, that an authenticator on your phone shows. Whoever learns your password alone gets nowhere."
        >
          <SecondFactor onChanged={async () => onChanged(await fetchSession())} />
        </Part>
        <Part
          title="Devices"
          about="Where you are signed in. One that you end gets nothing more from the server, and asks for your password."
        >
          <Devices />
        </Part>
        <Part
          title="Invite somebody"
          about="An account here is made by invitation. A link is good for one person and fourteen days."
        >
          <Invite />
        </Part>
        <Part
          title="Jots and today's page"
          about="What you write on when you press “Jot”, and where the page of the day is made. The addresses /jot and /today do the same from a phone's home screen."
        >
          <JotSettings />
        </Part>
        <Part title="Terms" about="In your own library, lenses that ask for “this term” go by these days.">
          <TermsField space={spaces.find((space) => space.personal)!.id} mayWrite />
        </Part>
        <Part
          title="Keys"
          about="All that goes by keys, and whether single letters are any. “?” shows the same anywhere."
        >
          <button type="button" className="quiet-button" data-testid="show-keys" onClick={() => openKeys(true)}>
            Show the keys
          </button>
        </Part>
        <Part
          title="Light"
          about="Changes the screen only. Paper stays paper, and nothing that is stored or exported changes."
        >
          <Theme />
        </Part>
        <Part title="How much it is" about="What your own library holds on the server, and what it may hold.">
          <Usage space={spaces.find((space) => space.personal)!.id} />
        </Part>
        <Part title="On this device" about="What you write is kept here first, then sent.">
          <DeviceKeeping />
          <p className="mt-1 text-quiet">
            You write in {spaces.map((space) => `${space.name} (${space.role})`).join(', ')}.
          </p>
        </Part>
      </div>
    </div>
  );
}

const choices: { choice: ThemeChoice; label: string }[] = [
  { choice: 'day', label: 'Day' },
  { choice: 'night', label: 'Night' },
  { choice: 'system', label: 'As the system' },
];

function Theme() {
  const [chosen, setChosen] = useState(themeChoice());
  return (
    <fieldset className="flex gap-2">
      <legend className="sr-only">Light</legend>
      {choices.map(({ choice, label }) => (
        <label
          key={choice}
          className={`flex h-10 items-center gap-2 rounded-md border px-4 ${chosen === choice ? 'border-primary font-semibold' : 'border-base-300'}`}
        >
          <input
            type="radio"
            name="theme"
            className="radio radio-primary radio-xs"
            data-testid={`theme-${choice}`}
            checked={chosen === choice}
            onChange={() => {
              chooseTheme(choice);
              setChosen(choice);
            }}
          />
          {label}
        </label>
      ))}
    </fieldset>
  );
}
