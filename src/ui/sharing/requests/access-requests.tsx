'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { AsksAnswer, AskToAnswer, OwnAsk } from '@/contract/sharing/access-requests.ts';
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

/** Who asks for access that one may give, what was answered, and how one's own asks stand. Takes no room where there is none. */
export function Asks({ asks }: { asks: AsksAnswer }) {
  const t = useTranslations('ask');
  const own = asks.own.filter((ask) => ask.state !== 'takenBack');
  return (
    <>
      {asks.waiting.length > 0 && (
        <section aria-label={t('waitingTitle')} className="below-6">
          <h2 className="below-4">{t('waitingTitle')}</h2>
          {asks.waiting.map((ask, i) => (
            <AskCard key={ask.key} ask={ask} openFirst={i < OPEN_AT_FIRST} />
          ))}
        </section>
      )}
      {own.length > 0 && <OwnAsks own={own} />}
      {asks.answered.length > 0 && <Answered answered={asks.answered} />}
      {asks.cut && <p className="small soft">{t('cut')}</p>}
    </>
  );
}

function OwnAsks({ own }: { own: readonly OwnAsk[] }) {
  const t = useTranslations('ask');
  const { ask } = useFrame();
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
              {one.state !== 'open' && ask && (!one.further || one.further.key || one.further.what) && (
                <Button
                  variant="text"
                  className="low"
                  onClick={() =>
                    ask({
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
            <AccessRequestState ask={one} />
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
function Answered({ answered }: { answered: readonly AskToAnswer[] }) {
  const t = useTranslations('ask');
  const [all, setAll] = useState(false);
  return (
    <section aria-label={t('answeredTitle')} className="below-6">
      <h2 className="below-4">{t('answeredTitle')}</h2>
      {(all ? answered : answered.slice(0, FEW)).map((ask) => (
        <AskCard key={ask.key} ask={ask} openFirst={false} />
      ))}
      {!all && answered.length > FEW && (
        <Button variant="text" onClick={() => setAll(true)}>
          {t('allAnswered', { count: answered.length })}
        </Button>
      )}
    </section>
  );
}

function AskCard({ ask, openFirst }: { ask: AskToAnswer; openFirst: boolean }) {
  const t = useTranslations('ask');
  const { frame } = useFrame();
  const levelName = useLevelName();
  const day = useDay();
  const [open, setOpen] = useState(openFirst);
  const nameOf = useCollectionName();
  const kind = ask.further?.kind ?? 'calendar';
  const last = ask.answers.at(-1);
  const words = {
    who: ask.from.name,
    owner: ask.to.name,
    first: firstName(ask.to.name),
    own: ask.own ? 'yes' : 'no',
    what: levelName(ask.wants),
    kind,
    name: ask.further?.name ? nameOf(kind, ask.further.name) : 'none',
  };
  const by = last?.by ? (last.by.actor === last.by.principal ? last.by.actor : t('hand', last.by)) : '';
  return (
    <article
      className={`${pageCss.card} ${asksCss.card} who-${ask.to.colour % 6}`}
      aria-label={t('cardLabel', { who: ask.from.name, owner: ask.to.name, kind })}
    >
      <Token name={ask.from.name} colour={ask.from.colour} />
      <div className={asksCss.body}>
        <p>
          <b>{ask.from.name}</b> {ask.from.detail && <span className="small soft">{ask.from.detail} · </span>}
          {t('asks', words)}{' '}
          <span className="small soft">
            {day(ask.at)}
            {ask.nudged && ` · ${t('nudgedOn', { date: day(ask.nudged) })}`}
          </span>
        </p>
        {ask.why && <p className="lines">“{ask.why}”</p>}
        {(ask.starts || ask.ends) && (
          <p className="small">
            {ask.starts && `${t('fromDay', { date: day(ask.starts) })} `}
            {ask.ends && t('untilDay', { date: day(ask.ends, 1) })}
          </p>
        )}
        {ask.gave && (
          <p className="small">
            {t('gave', { who: firstName(ask.from.name), what: levelName(ask.gave) })}{' '}
            {ask.own && (
              <Link
                href={
                  kind === 'calendar'
                    ? `/for/${frame.me.handle}/calendar?of=${ask.from.handle}`
                    : `/for/${frame.me.handle}/everything?of=${ask.from.handle}`
                }
              >
                {t('lookAtTheirs')}
              </Link>
            )}
          </p>
        )}
        {ask.state !== 'open' && last && (
          <p className="small">
            {last.answer === 'given'
              ? t('answeredYes', { who: by, what: last.rights ? levelName(last.rights) : '', date: day(last.at) })
              : t('answeredNo', { who: by, date: day(last.at) })}
            {last.note && ` “${last.note}”`}
          </p>
        )}
        <p className="small soft">{t('hasNow', { who: firstName(ask.from.name), what: levelName(ask.has) })}</p>
        {open ? (
          <AnswerRequest ask={ask} onLeave={() => setOpen(false)} />
        ) : (
          <div>
            <Button variant="outlined" onClick={() => setOpen(true)}>
              {t(ask.state === 'open' ? 'answer' : ask.state === 'given' ? 'turnGiven' : 'turnRefused')}
            </Button>
          </div>
        )}
      </div>
    </article>
  );
}
