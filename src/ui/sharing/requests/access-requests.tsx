'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type {
  AccessRequestsAnswer,
  AccessRequestToAnswer,
  OwnAccessRequest,
} from '@/contract/sharing/access-requests.ts';
import { useCollectionGoal } from '../../common/collection-goal.ts';
import { useCollectionName } from '../../common/collection-name.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import pageCss from '../../common/page.module.css';
import { AccessRequestState } from '../../common/requests/access-request-state.tsx';
import { useLevelName } from '../../common/requests/level-name.ts';
import { firstName, Token } from '../../common/token.tsx';
import asksCss from './access-requests.module.css';
import { AnswerRequest, useDay } from './answer-request.tsx';

/** So many that wait stand open at first, each beside its week; the others at a press. */
const OPEN_AT_FIRST = 2;
/** So many of what is answered, and of one's own, before the rest is asked for. */
const FEW = 3;

/** Who asks for access that one may give, what was answered, and how one's own access requests stand. Takes no room where there is none. */
export function AccessRequests({ requests }: { requests: AccessRequestsAnswer }) {
  const t = useTranslations('ask');
  const own = requests.own.filter((request) => request.state !== 'takenBack');
  return (
    <>
      {requests.waiting.length > 0 && (
        <section aria-label={t('waitingTitle')} className="below-6">
          <h2 className="below-4">{t('waitingTitle')}</h2>
          {requests.waiting.map((request, i) => (
            <AccessRequestCard key={request.key} request={request} openFirst={i < OPEN_AT_FIRST} />
          ))}
        </section>
      )}
      {own.length > 0 && <OwnAccessRequests own={own} />}
      {requests.answered.length > 0 && <Answered answered={requests.answered} />}
      {requests.cut && <p className="small soft">{t('cut')}</p>}
    </>
  );
}

function OwnAccessRequests({ own }: { own: readonly OwnAccessRequest[] }) {
  const t = useTranslations('ask');
  const { requestAccess } = useFrame();
  const nameOf = useCollectionName();
  const goal = useCollectionGoal();
  const [all, setAll] = useState(false);
  // What waits, or has news, isn't folded away.
  const first = own.filter((one, i) => one.state === 'open' || one.news || i < FEW);
  return (
    <section aria-label={t('ownTitle')} className="below-6">
      <h2 className="below-4">{t('ownTitle')}</h2>
      <ul className={asksCss.own}>
        {(all ? own : first).map((one) => (
          <li key={one.key}>
            <p className="row gap-4">
              <Token name={one.to.name} colour={one.to.colour} tiny />
              <b>{one.to.name}</b>
              {one.further && (
                <span className="soft">
                  {one.further.name || one.further.what ? nameOf(one.further.kind, one.further.name) : ''}
                </span>
              )}
              {one.news && <b className="wrong small">{t('news')}</b>}
              {one.has.sight !== 'nothing' && (
                <Link className={asksCss.push} href={goal(one.to.handle, one.further)}>
                  {t('look')}
                </Link>
              )}
              {one.state !== 'open' && requestAccess && (!one.further || one.further.key || one.further.what) && (
                <Button
                  variant="text"
                  className="low"
                  onClick={() =>
                    requestAccess({
                      people: [one.to],
                      what: one.further?.what ?? 'calendar',
                      further: one.further?.key ? one.further : null,
                      has: one.has,
                    })
                  }
                >
                  {t('again')}
                </Button>
              )}
            </p>
            <AccessRequestState request={one} />
          </li>
        ))}
      </ul>
      {!all && first.length < own.length && (
        <Button variant="text" onClick={() => setAll(true)}>
          {t('allOwn', { count: own.length })}
        </Button>
      )}
    </section>
  );
}

/** What was answered, to be turned round from where it was answered, whenever that is. */
function Answered({ answered }: { answered: readonly AccessRequestToAnswer[] }) {
  const t = useTranslations('ask');
  const [all, setAll] = useState(false);
  return (
    <section aria-label={t('answeredTitle')} className="below-6">
      <h2 className="below-4">{t('answeredTitle')}</h2>
      {(all ? answered : answered.slice(0, FEW)).map((request) => (
        <AccessRequestCard key={request.key} request={request} openFirst={false} />
      ))}
      {!all && answered.length > FEW && (
        <Button variant="text" onClick={() => setAll(true)}>
          {t('allAnswered', { count: answered.length })}
        </Button>
      )}
    </section>
  );
}

function AccessRequestCard({ request, openFirst }: { request: AccessRequestToAnswer; openFirst: boolean }) {
  const t = useTranslations('ask');
  const { frame } = useFrame();
  const levelName = useLevelName();
  const day = useDay();
  const [open, setOpen] = useState(openFirst);
  const nameOf = useCollectionName();
  const kind = request.further?.kind ?? 'calendar';
  const last = request.answers.at(-1);
  const words = {
    who: request.from.name,
    owner: request.to.name,
    first: firstName(request.to.name),
    own: request.own ? 'yes' : 'no',
    what: levelName(request.wants),
    kind,
    name: request.further?.name ? nameOf(kind, request.further.name) : 'none',
  };
  const by = last?.by ? (last.by.actor === last.by.principal ? last.by.actor : t('hand', last.by)) : '';
  return (
    <article
      className={`${pageCss.card} ${asksCss.card} who-${request.to.colour % 6}`}
      aria-label={t('cardLabel', { who: request.from.name, owner: request.to.name, kind })}
    >
      <Token name={request.from.name} colour={request.from.colour} />
      <div className={asksCss.body}>
        <p>
          <b>{request.from.name}</b>{' '}
          {request.from.detail && <span className="small soft">{request.from.detail} · </span>}
          {t('asks', words)}{' '}
          <span className="small soft">
            {day(request.at)}
            {request.nudged && ` · ${t('nudgedOn', { date: day(request.nudged) })}`}
          </span>
        </p>
        {request.why && <p className="lines">“{request.why}”</p>}
        {(request.starts || request.ends) && (
          <p className="small">
            {request.starts && `${t('fromDay', { date: day(request.starts) })} `}
            {request.ends && t('untilDay', { date: day(request.ends, 1) })}
          </p>
        )}
        {request.gave && (
          <p className="small">
            {t('gave', { who: firstName(request.from.name), what: levelName(request.gave) })}{' '}
            {request.own && (
              <Link
                href={
                  kind === 'calendar'
                    ? `/for/${frame.me.handle}/calendar?of=${request.from.handle}`
                    : `/for/${frame.me.handle}/everything?of=${request.from.handle}`
                }
              >
                {t('lookAtTheirs')}
              </Link>
            )}
          </p>
        )}
        {request.state !== 'open' && last && (
          <p className="small">
            {last.answer === 'given'
              ? t('answeredYes', { who: by, what: last.rights ? levelName(last.rights) : '', date: day(last.at) })
              : t('answeredNo', { who: by, date: day(last.at) })}
            {last.note && ` “${last.note}”`}
          </p>
        )}
        <p className="small soft">{t('hasNow', { who: firstName(request.from.name), what: levelName(request.has) })}</p>
        {open ? (
          <AnswerRequest request={request} onLeave={() => setOpen(false)} />
        ) : (
          <div>
            <Button variant="outlined" onClick={() => setOpen(true)}>
              {t(request.state === 'open' ? 'answer' : request.state === 'given' ? 'turnGiven' : 'turnRefused')}
            </Button>
          </div>
        )}
      </div>
    </article>
  );
}
