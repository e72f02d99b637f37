'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { NoticesAnswer } from '@/contract/notices.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { dayMonth } from '../../common/times.ts';
import { useRuleValue } from '../rule-value.ts';

type Wish = NoticesAnswer['wishes'][number];

/** What somebody would have the house rules be: an administrator sets it so or leaves it; the one who asked reads the answer. */
export function Wishes({ wishes }: { wishes: readonly Wish[] }) {
  const t = useTranslations('messages');
  return (
    <section className={`${pageCss.card} gap-6 below-6 stack`} aria-label={t('wishesTitle')}>
      <h2>{t('wishesTitle')}</h2>
      {wishes.map((wish) => (
        <WishLine key={wish.key} wish={wish} />
      ))}
    </section>
  );
}

function WishLine({ wish }: { wish: Wish }) {
  const t = useTranslations();
  const { frame, style, toast } = useFrame();
  const client = useQueryClient();
  const valueText = useRuleValue();
  const [note, setNote] = useState('');
  const { attempt, busy, refused } = useActing();
  const words = {
    who: wish.who,
    rule: t(`houseRuleNames.${wish.rule as 'linkSight'}`),
    further: wish.further ? 'yes' : 'no',
    wanted: valueText(wish.rule, wish.wanted),
    now: valueText(wish.rule, wish.now),
  };
  const answer = async (how: 'changed' | 'left') => {
    await attempt(async () => {
      await call('answerWish', { params: { wish: wish.key }, body: { answer: how, note } });
      toast({ text: how === 'changed' ? t('messages.wishDone') : t('messages.wishLeftDone', { who: wish.who }) });
      await client.invalidateQueries();
    });
  };
  const waits = wish.answer === null;
  return (
    <div className="gap-3 stack">
      <p>
        {wish.own ? t('messages.wishOwn', words) : t('messages.wish', words)}{' '}
        <span className="small soft">{dayMonth(toWall(style.zone, parseInstant(wish.at) ?? 0))}</span>
      </p>
      {wish.note && <p>“{wish.note}”</p>}
      {!waits && (
        <p className="small">
          {t(wish.answer === 'changed' ? 'messages.wishChanged' : 'messages.wishLeft', { who: wish.answeredBy ?? '' })}{' '}
          {wish.answerNote && `“${wish.answerNote}”`}
        </p>
      )}
      {waits && !frame.me.administrator && <p className="small soft">{t('messages.wishWaits')}</p>}
      {refused && <Alert severity="error">{refused}</Alert>}
      {waits && frame.me.administrator && (
        <div className="row">
          <TextField
            label={t('messages.wishNote')}
            value={note}
            onChange={(e) => setNote(e.target.value)}
            className="field-4"
          />
          <Button variant="contained" loading={busy} onClick={() => void answer('changed')}>
            {t('messages.wishDo')}
          </Button>
          <Button variant="outlined" loading={busy} onClick={() => void answer('left')}>
            {t('messages.wishLeave')}
          </Button>
        </div>
      )}
    </div>
  );
}
