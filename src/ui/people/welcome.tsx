'use client';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { PersonForm } from '../common/fields/person-form.tsx';
import { Hills, Mark } from '../common/hills.tsx';
import doorCss from './door.module.css';

/** The beginning: nobody is here yet, and the first becomes the administrator. */
export function Welcome() {
  const t = useTranslations();
  return (
    <div className={doorCss.door}>
      <div className={doorCss.left}>
        <h1 className="row large">
          <Mark size={32} /> {t('app.name')}
        </h1>
        <h2>{t('welcome.title')}</h2>
        <p className="soft">{t('welcome.text')}</p>
        <PersonForm
          first
          onSend={async (values) => {
            await call('foundOrganisation', { body: { ...values, code: values.code ?? '' } });
            await call('signIn', { body: { address: values.address, password: values.password } });
          }}
          onSent={() => window.location.assign('/')}
        />
        <Hills />
      </div>
      <main className={doorCss.right}>
        <h2>{t('firstSteps.next')}</h2>
        <ol className={doorCss.next}>
          {(['people', 'hours', 'sees', 'item'] as const).map((step) => (
            <li key={step}>
              <b>{t(`firstSteps.steps.${step}`)}</b>
              {step !== 'item' && <span className="soft">{t(`firstSteps.why.${step}`)}</span>}
            </li>
          ))}
        </ol>
      </main>
    </div>
  );
}
