'use client';
import Alert from '@mui/material/Alert';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ExplainAnswer } from '@/contract/sharing/review.ts';
import type { AudienceWire } from '@/contract/sharing/sharing.ts';
import { fromWallLenient, instantText, parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { usePreview } from '../../common/fetched/preview.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { DateField } from '../../common/fields/date-field.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { DAY, fullDay } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';

/** Can this audience see this item, and why: step by step, as it stands or as it stood at the end of a past day. */
export function ExplainAccess({
  calendar,
  audience,
  item,
}: {
  calendar: string;
  audience: AudienceWire;
  item: string;
}) {
  const t = useTranslations('lines');
  const ts = useTranslations('seen');
  const { style } = useFrame();
  const [day, setDay] = useState('');
  const parsed = parseDate(day);
  const at = parsed === null ? null : instantText(fromWallLenient(style.zone, parsed + DAY - 60_000));
  const { answer: data, why: failed } = usePreview(KEYS.calendar(calendar, 'ask', audience, item, at), () =>
    call('explainAccess', { params: { calendar }, body: { audience, item, at } }),
  );
  const name = data?.name ? firstName(data.name) : t('asEveryone');
  return (
    <section className={`${pageCss.card} above-4`} aria-label={t('askTitle')}>
      <h3>{t('askTitle')}</h3>
      {failed && !failed.fields.at && <Alert severity="error">{failed.sentence}</Alert>}
      {data && (
        <>
          <p aria-live="polite">
            <b>
              {t('askAnswer', { name, past: at ? 'yes' : 'no', seen: ts(data.seen), title: data.item.title ?? '' })}
            </b>{' '}
            {at && <span className="soft small">{fullDay(toWall(style.zone, parseInstant(data.at) ?? 0))}</span>}
          </p>
          <ol className="dots">
            {data.steps.map((step) => (
              <li key={step.step}>
                <StepText step={step} />
              </li>
            ))}
          </ol>
        </>
      )}
      <DateField label={t('askAt')} value={day} error={failed?.fields.at} help={t('askAtHelp')} onChange={setDay} />
    </section>
  );
}

function StepText({ step }: { step: ExplainAnswer['steps'][number] }) {
  const t = useTranslations();
  const { facts } = step;
  const what = facts.preset
    ? t(`presets.${facts.preset as 'full'}`)
    : facts.sight
      ? t(`sights.${facts.sight as 'full'}`)
      : '';
  const key = step.step.replace('.', '_') as 'owner';
  const lowered = (facts.lowered ?? '').split(',').filter(Boolean);
  const words = {
    name: facts.name ?? '',
    what,
    sight: facts.sight ? t(`sightWords.${facts.sight as 'full'}`) : '',
    rule: facts.rule ? t(`houseRuleNames.${facts.rule as 'linkSight'}`) : '',
    from: facts.from ?? '',
    to: facts.to ?? '',
    lowered: lowered
      .map((right) => (right in EXTRA ? t(`extras.${right as 'private'}`).toLowerCase() : right))
      .join(', '),
  };
  return <>{t(`askSteps.${key}`, words as never)}</>;
}

const EXTRA = { suggest: 1, private: 1, speaks: 1, copies: 1, shares: 1, absence: 1 };
