import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { chooseLanguage, chosenLanguage, type Language, languages } from '../words/language';
import { chooseTheme, type ThemeChoice, themeChoice } from '../ui/theme';
import { JotSettings } from '../settings/JotSettings';
import { TermsField } from '../settings/TermsField';
import { Avatar } from '../ui/Avatar';
import { openKeys } from '../ui/keysSheet';
import { sendJson } from '../server/api';
import { ChangeForm } from './ChangeForm';
import { DeviceKeeping } from './DeviceKeeping';
import { Digest } from './Digest';
import { Devices } from './Devices';
import { Field } from '../ui/Field';
import { Invite } from './Invite';
import { Part } from './Part';
import { SecondFactor } from './SecondFactor';
import { SignOut } from './SignOut';
import { roleNames, type Session, useSession } from '../server/session';
import { within } from '../words/coreWords';
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
        <Part title={t`Name`} about={t`As the others in your group see it, on pages you write and beside your pen.`}>
          <ChangeForm
            done={t`The name is changed.`}
            submit={t`Change name`}
            send={(form) => details({ name: form.name! })}
            testId="name-form"
          >
            <Field label={t`Name`} name="name" value={person.name} autoComplete="name" />
          </ChangeForm>
        </Part>
        <Part title={t`E-mail`} about={t`You sign in with it. It is shown to nobody.`}>
          <ChangeForm
            done={t`The address is changed.`}
            submit={t`Change e-mail`}
            send={(form) => details({ email: form.email!, password: form.password! })}
            testId="email-form"
          >
            <Field label={t`New e-mail`} name="email" type="email" autoComplete="email" />
            <Field label={t`Your password`} name="password" type="password" autoComplete="current-password" />
          </ChangeForm>
        </Part>
        <Part
          title={t`Password`}
          about={t`Changing it signs you out on all other devices. What they hold unsent stays on them until you sign in there again.`}
        >
          <ChangeForm
            done={t`The password is changed.`}
            submit={t`Change password`}
            send={(form) => sendJson('PUT', '/api/people/me/password', { old: form.old, new: form.new })}
            testId="password-form"
          >
            <Field label={t`Old password`} name="old" type="password" autoComplete="current-password" />
            <Field
              label={t`New password`}
              name="new"
              type="password"
              autoComplete="new-password"
              hint={t`At least 8 characters`}
            />
          </ChangeForm>
        </Part>
        <Part
          title={t`Second factor`}
          about={t`With it on, signing in asks for a code as well, that an authenticator on your phone shows. Whoever learns your password alone gets nowhere.`}
        >
          <SecondFactor onChanged={async () => onChanged(await fetchSession())} />
        </Part>
        <Part
          title={t`Devices`}
          about={t`Where you are signed in. One that you end gets nothing more from the server, and asks for your password.`}
        >
          <Devices />
        </Part>
        <Part
          title={t`Invite somebody`}
          about={t`An account here is made by invitation. A link is good for one person and fourteen days.`}
        >
          <Invite />
        </Part>
        <Part
          title={t`By mail`}
          about={t`What somebody says to you, or to what you asked. It stands on your Desk in any case.`}
        >
          <Digest />
        </Part>
        <Part
          title={t`Jots and today's page`}
          about={t`What you write on when you press “Jot”, and where the page of the day is made. The addresses /jot and /today do the same from a phone's home screen.`}
        >
          <JotSettings />
        </Part>
        <Part title={t`Terms`} about={t`In your own library, lenses that ask for “this term” go by these days.`}>
          <TermsField space={spaces.find((space) => space.personal)!.id} mayWrite />
        </Part>
        <Part
          title={t`Keys`}
          about={t`All that goes by keys, and whether single letters are any. “?” shows the same anywhere.`}
        >
          <Button data-testid="show-keys" onClick={() => openKeys(true)}>{t`Show the keys`}</Button>
        </Part>
        <Part
          title={t`Light`}
          about={t`Changes the screen only. Paper stays paper, and nothing that is stored or exported changes.`}
        >
          <Theme />
        </Part>
        <Part
          title={t`Language`}
          about={t`Of the interface on this device. What you and others wrote stays as it was written.`}
        >
          <LanguageChoice />
        </Part>
        <Part title={t`How much it is`} about={t`What your own library holds on the server, and what it may hold.`}>
          <Usage space={spaces.find((space) => space.personal)!.id} />
        </Part>
        <Part title={t`On this device`} about={t`What you write is kept here first, then sent.`}>
          <DeviceKeeping />
          <p className="mt-1 text-quiet">{t`You write in ${spaces.map((space) => `${space.name} (${within(roleNames[space.role])})`).join(', ')}.`}</p>
        </Part>
      </div>
    </div>
  );
}

const choices: { choice: ThemeChoice; label: string }[] = [
  { choice: 'day', label: t`Day` },
  { choice: 'night', label: t`Night` },
  { choice: 'system', label: t`As the system` },
];

function Theme() {
  const [chosen, setChosen] = useState(themeChoice());
  return (
    <Choice
      name="theme"
      legend={t`Light`}
      choices={choices}
      chosen={chosen}
      onChoose={(choice) => {
        chooseTheme(choice);
        setChosen(choice);
      }}
    />
  );
}

/** The languages go by their own names, so that whoever ended up in a foreign one finds the way back. */
function LanguageChoice() {
  const own = (Object.keys(languages) as Language[]).map((choice) => ({ choice, label: languages[choice].name }));
  return (
    <Choice<Language | 'browser'>
      name="language"
      legend={t`Language`}
      choices={[...own, { choice: 'browser', label: t`As the browser` }]}
      chosen={chosenLanguage() ?? 'browser'}
      onChoose={(choice) => chooseLanguage(choice === 'browser' ? undefined : choice)}
    />
  );
}

/** One of a few, each with its words beside it. */
function Choice<T extends string>({
  name,
  legend,
  choices: offered,
  chosen,
  onChoose,
}: {
  name: string;
  legend: string;
  choices: { choice: T; label: string }[];
  chosen: T;
  onChoose: (choice: T) => void;
}) {
  return (
    <fieldset className="flex flex-wrap gap-2">
      <legend className="sr-only">{legend}</legend>
      {offered.map(({ choice, label }) => (
        <label
          key={choice}
          className={`flex h-11 items-center gap-2 rounded-md border px-4 ${chosen === choice ? 'border-primary font-semibold' : 'border-base-300'}`}
        >
          <input
            type="radio"
            name={name}
            className="radio radio-primary radio-xs"
            data-testid={`${name}-${choice}`}
            checked={chosen === choice}
            onChange={() => onChoose(choice)}
          />
          {label}
        </label>
      ))}
    </fieldset>
  );
}
