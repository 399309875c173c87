import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { chooseLanguage, chosenLanguage, type Language, languages } from '../words/language';
import { chooseTheme, type ThemeChoice, themeChoice } from '../ui/theme';
import { FilesSettings } from '../settings/FilesSettings';
import { JotSettings } from '../settings/JotSettings';
import { RegionSettings } from '../settings/RegionSettings';
import { TermsField } from '../settings/TermsField';
import { Avatar } from '../ui/Avatar';
import { ColourField } from '../ui/looks';
import { sentenceOf } from '../core/runtime';
import { openKeys } from '../ui/keysSheet';
import { sendJson } from '../server/api';
import { ChangeForm } from './ChangeForm';
import { DeviceKeeping } from './DeviceKeeping';
import { Digest } from './Digest';
import { DeleteAccount } from './DeleteAccount';
import { Devices } from './Devices';
import { Field } from '../ui/Field';
import { Invite } from './Invite';
import { Part } from './Part';
import { SecondFactor } from './SecondFactor';
import { SignOut } from './SignOut';
import { TakeAlong } from './TakeAlong';
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
        <Part
          title={t`Name and colour`}
          about={t`As the others in your group see them, on pages you write and beside your pen.`}
        >
          <ChangeForm
            done={t`The name is changed.`}
            submit={t`Change name`}
            send={(form) => details({ name: form.name! })}
            testId="name-form"
          >
            <Field label={t`Name`} name="name" value={person.name} autoComplete="name" />
          </ChangeForm>
          <OwnColour colour={person.colour} onChange={(colour) => details({ colour })} />
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
        <Part
          title={t`Measures and times`}
          about={t`On all your devices. What is stored and printed has its own measures.`}
        >
          <RegionSettings />
        </Part>
        <Part title={t`How much it is`} about={t`What your own library holds on the server, and what it may hold.`}>
          <Usage space={spaces.find((space) => space.personal)!.id} />
        </Part>
        <Part title={t`On this device`} about={t`What you write is kept here first, then sent.`}>
          <DeviceKeeping />
          <p className="mt-1 text-quiet">{t`You write in ${spaces.map((space) => `${space.name} (${within(roleNames[space.role])})`).join(', ')}.`}</p>
        </Part>
        <Part
          title={t`Pictures in files`}
          about={t`How many dots an inch pictures have in a PDF or SVG that you take out, and a page as PNG. What is kept here stays as fine as it came.`}
        >
          <FilesSettings />
        </Part>
        <Part
          title={t`Take everything with me`}
          about={t`All that is yours as one archive, in forms that other programs open. You stay here as you are.`}
        >
          <TakeAlong />
        </Part>
        <Part
          title={t`Delete my account`}
          about={t`What becomes of your notebooks, and of what you wrote in groups, is said before anything is done.`}
        >
          <DeleteAccount />
        </Part>
      </div>
    </div>
  );
}

function OwnColour({ colour, onChange }: { colour: string; onChange: (colour: string) => Promise<void> }) {
  const [problem, setProblem] = useState('');
  return (
    <div data-testid="own-colour">
      <ColourField
        value={colour}
        onChange={(chosen) => {
          onChange(chosen).then(
            () => setProblem(''),
            (error: unknown) => setProblem(sentenceOf(error)),
          );
        }}
      />
      {problem && (
        <p role="alert" className="text-error">
          {problem}
        </p>
      )}
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
