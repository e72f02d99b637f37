'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useEffect } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { useTranslations } from 'use-intl';
import { useActing } from '../fetched/acting.ts';
import { useHydrated } from '../hydrated.ts';
import { ZoneField } from './zone-field.tsx';

export interface PersonValues {
  name: string;
  address: string;
  role: string;
  phone: string;
  zone: string;
  password: string;
  /** At the first start: what the server printed. */
  code?: string;
}

/** Somebody new: who they are, how they sign in, and where their clock stands. What was typed stays through a refusal. */
export function PersonForm(props: {
  first: boolean;
  onSend: (values: PersonValues) => Promise<unknown>;
  onSent: (values: PersonValues) => void;
}) {
  const { first, onSend, onSent } = props;
  const t = useTranslations();
  const { attempt, refused, setRefused } = useActing();
  const form = useForm<PersonValues>({ defaultValues: { zone: 'UTC' } });
  const hydrated = useHydrated();
  const { register, control, handleSubmit, setError, setValue, reset, watch, formState } = form;
  const { errors, isSubmitting } = formState;
  useEffect(() => setValue('zone', Intl.DateTimeFormat().resolvedOptions().timeZone), [setValue]);
  const send = async (values: PersonValues) => {
    setRefused(null);
    await attempt(
      async () => {
        await onSend(values);
        reset({ name: '', address: '', role: '', phone: '', password: '', zone: values.zone });
        onSent(values);
      },
      (s) => {
        setRefused(s.sentence);
        for (const [field, message] of Object.entries(s.fields))
          if (field in values) setError(field as keyof PersonValues, { message });
      },
    );
  };
  const input = (name: keyof PersonValues, label: string, type = 'text', help?: string) => (
    <TextField
      label={label}
      type={type}
      autoComplete={name === 'password' ? 'new-password' : 'off'}
      error={!!errors[name]}
      helperText={errors[name]?.message ?? help}
      slotProps={{ inputLabel: { shrink: true } }}
      {...register(name)}
    />
  );
  const name = watch('name')?.trim();
  return (
    <form method="post" onSubmit={handleSubmit(send)} noValidate className="gap-6 stack">
      {refused && <Alert severity="error">{refused}</Alert>}
      {first && input('code', t('welcome.code'), 'text', t('welcome.codeHelp'))}
      {input('name', first ? t('welcome.name') : t('people.name'))}
      {input('address', t('people.address'), 'email')}
      {input('role', first ? t('welcome.role') : t('people.role'))}
      {!first && input('phone', t('people.phone'), 'tel')}
      <Controller
        name="zone"
        control={control}
        render={({ field }) => (
          <ZoneField
            label={first ? t('welcome.zone') : t('people.zone')}
            value={field.value}
            wrong={errors.zone?.message}
            onChange={field.onChange}
          />
        )}
      />
      {input('password', first ? t('signIn.password') : t('people.password'), 'password', t('people.passwordHelp'))}
      <Button type="submit" variant="contained" loading={isSubmitting} disabled={!hydrated}>
        {first ? t('welcome.do') : t('people.addDo', { name: name || t('people.somebody') })}
      </Button>
    </form>
  );
}
