'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useActing } from '../common/fetched/acting.ts';
import { Hills, Mark } from '../common/hills.tsx';
import { useHydrated } from '../common/hydrated.ts';
import { Link } from '../common/link.tsx';
import { firstName, Token } from '../common/token.tsx';
import doorCss from './door.module.css';
import signInCss from './sign-in.module.css';

interface Face {
  readonly handle: string;
  readonly name: string;
  readonly role: string;
  readonly colour: number;
}
const STORY = ['ines', 'tomas', 'amara', 'bruno', 'dario', 'pim', 'oona'] as const;
type Told = (typeof STORY)[number];

/** The door: an address and a password; in the demo, the sample people to step in as. */
export function SignIn({ goal, faces, host }: { goal: string; faces: readonly Face[]; host: string }) {
  const t = useTranslations();
  const { register, handleSubmit, setError, formState } = useForm<{ address: string; password: string }>();
  const hydrated = useHydrated();
  const { errors, isSubmitting } = formState;
  const { attempt, refused } = useActing();
  const [stepping, setStepping] = useState<string | null>(null);

  const signIn = async (v: { address: string; password: string }) => {
    await attempt(
      async () => {
        await call('signIn', { body: v });
        window.location.assign(goal);
      },
      ({ fields, sentence }) => {
        for (const [field, message] of Object.entries(fields))
          if (field === 'address' || field === 'password') setError(field, { message });
        return sentence;
      },
    );
  };
  const stepInto = async (handle: string) => {
    setStepping(handle);
    // Each sample person has a host of their own, where the machine's name allows one.
    const own = ownHost(host, handle);
    if (own && own !== window.location.host) {
      window.location.assign(
        `http://${own}/sign-in?step=${handle}${goal === '/' ? '' : `&to=${encodeURIComponent(goal)}`}`,
      );
      return;
    }
    const inside = await attempt(async () => {
      await call('stepIn', { body: { handle } });
      window.location.assign(goal);
    });
    if (!inside) setStepping(null);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the page opens on the person's own host
  useEffect(() => {
    const step = new URLSearchParams(window.location.search).get('step');
    if (step && faces.some((f) => f.handle === step)) void stepInto(step);
  }, []);

  const told = STORY.flatMap((handle) => faces.find((f) => f.handle === handle) ?? []);
  const others = faces.filter((f) => !(STORY as readonly string[]).includes(f.handle));
  return (
    <div className={doorCss.door}>
      <div className={doorCss.left}>
        <h1 className="row large">
          <Mark size={32} /> {t('app.name')}
        </h1>
        <p className="soft">{t('signIn.tag')}</p>
        <h2 className="above-7">{t('signIn.title')}</h2>
        {refused && <Alert severity="error">{refused}</Alert>}
        <form method="post" onSubmit={handleSubmit(signIn)} noValidate className="gap-6 stack">
          <TextField
            label={t('signIn.address')}
            type="email"
            autoComplete="username"
            error={!!errors.address}
            helperText={errors.address?.message}
            {...register('address')}
          />
          <TextField
            label={t('signIn.password')}
            type="password"
            autoComplete="current-password"
            error={!!errors.password}
            helperText={errors.password?.message}
            {...register('password')}
          />
          <Button type="submit" variant="contained" loading={isSubmitting} disabled={!hydrated}>
            {t('signIn.do')}
          </Button>
        </form>
        <p className="small">
          <Link href="/guest">{t('signIn.guest')}</Link>
        </p>
        {faces.length > 0 && (
          <p className="small">
            <Link href="/letterbox">{t('signIn.letterbox')}</Link> ·{' '}
            <Link href="/correspondents">{t('correspondents.title')}</Link>
          </p>
        )}
        <Hills />
      </div>
      {faces.length > 0 ? (
        <main className={doorCss.right}>
          <h2>{t('signIn.demo')}</h2>
          <p className="soft">{stepping ? t('signIn.stepping') : t('signIn.demoHelp')}</p>
          <h3 className="above-7">{t('signIn.main')}</h3>
          <div className={signInCss['people-grid']}>
            {told.map((f) => (
              <StepIn key={f.handle} face={f} text={t(`story.${f.handle as Told}`)} onStep={stepInto} />
            ))}
          </div>
          <h3 className="above-7">{t('signIn.others')}</h3>
          <div className={signInCss['people-grid']}>
            {others.map((f) => (
              <StepIn key={f.handle} face={f} text={f.role} onStep={stepInto} />
            ))}
          </div>
        </main>
      ) : (
        <main className={doorCss.right} />
      )}
    </div>
  );
}

function StepIn({ face, text, onStep }: { face: Face; text: string; onStep: (handle: string) => void }) {
  return (
    <button type="button" className={`plain ${signInCss.step}`} onClick={() => onStep(face.handle)}>
      <Token name={face.name} colour={face.colour} />
      <span>
        <b>{face.name}</b>
        <span className="small soft block">{text || firstName(face.name)}</span>
      </span>
    </button>
  );
}

/** `ines.localhost:3000` for `localhost:3000`; `null` where the host can't have names below it. */
function ownHost(host: string, handle: string): string | null {
  const [name = '', port] = host.split(':');
  if (name !== 'localhost' && !name.endsWith('.localhost')) return null;
  return `${handle}.localhost${port ? `:${port}` : ''}`;
}
