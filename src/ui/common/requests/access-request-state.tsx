'use client';
import Button from '@mui/material/Button';
import { useQueryClient } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { OwnAccessRequest } from '@/contract/sharing/access-requests.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useActingWithToast } from '../fetched/acting.ts';
import { KEYS } from '../fetched/query-keys.ts';
import { useFrame } from '../frame-context.tsx';
import pageCss from '../page.module.css';
import { dayMonth } from '../times.ts';
import { firstName } from '../token.tsx';
import { useLevelName } from './level-name.ts';

/** How one's own access request stands: what was asked, what was answered, and what may be done about it now. */
export function AccessRequestState({ request }: { request: OwnAccessRequest }) {
  const t = useTranslations('ask');
  const { style, now, toast } = useFrame();
  const client = useQueryClient();
  const levelName = useLevelName();
  const { attempt, busy } = useActingWithToast();
  const day = (instant: string, back = 0) => dayMonth(toWall(style.zone, (parseInstant(instant) ?? 0) - back));
  const name = firstName(request.to.name);
  const last = request.answers.at(-1);
  const act = async (work: () => Promise<unknown>, text: string) => {
    await attempt(async () => {
      await work();
      toast({ text });
    });
    await client.invalidateQueries({ queryKey: KEYS.accessRequests });
  };
  const waits = request.state === 'open';
  const mayNudge = now() >= (parseInstant(request.again) ?? 0);
  const answeredBy = last?.by ? (last.by.actor === last.by.principal ? last.by.actor : t('hand', last.by)) : '';
  return (
    <div className={`${pageCss.card} gap-3 stack`}>
      <p>
        {t('youAsked', { what: levelName(request.wants), date: day(request.at) })}
        {request.ends && ` ${t('untilDay', { date: day(request.ends, 1) })}`}
      </p>
      {request.why && <p className="soft">“{request.why}”</p>}
      {request.gave && <p className="small soft">{t('youGave', { name, what: levelName(request.gave) })}</p>}
      {waits && (
        <p className="small soft">{request.nudged ? t('nudged', { date: day(request.nudged) }) : t('waits')}</p>
      )}
      {request.state === 'given' && last && (
        <p className="small">
          {t('answeredYes', { who: answeredBy, what: last.rights ? levelName(last.rights) : '', date: day(last.at) })}
          {request.has.sight === 'nothing' && ` ${t('endedSince')}`}
        </p>
      )}
      {request.state === 'refused' && last && (
        <p className="small">
          {last.by ? t('answeredNo', { who: answeredBy, date: day(last.at) }) : t('closed', { date: day(last.at) })}
        </p>
      )}
      {!waits && last?.note && <p className="lines">“{last.note}”</p>}
      {waits && (
        <div className="row">
          <Button
            variant="outlined"
            disabled={!mayNudge}
            loading={busy}
            onClick={() =>
              void act(() => call('remindOfAccessRequest', { params: { ask: request.key } }), t('nudgeDone', { name }))
            }
          >
            {t('nudge')}
          </Button>
          <Button
            variant="text"
            loading={busy}
            onClick={() =>
              void act(() => call('withdrawAccessRequest', { params: { ask: request.key } }), t('takenBack'))
            }
          >
            {t('takeBack')}
          </Button>
        </div>
      )}
      {waits && !mayNudge && <p className="small soft">{t('nudgeFrom', { date: day(request.again) })}</p>}
    </div>
  );
}
