import { t } from '@lingui/core/macro';
import { Field } from '../ui/Field';

/** What an account needs. */
export function NewAccount() {
  return (
    <>
      <Field label={t`Name`} name="name" autoComplete="name" />
      <Field label={t`E-mail`} name="email" type="email" autoComplete="username" />
      <Field
        label={t`Password`}
        name="password"
        type="password"
        autoComplete="new-password"
        hint={t`At least 8 characters`}
      />
    </>
  );
}
