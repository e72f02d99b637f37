'use client';
import { useMemo } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { PeopleAnswer } from '@/contract/people/people.ts';
import { dateText, toWall } from '@/core/time/index.ts';
import { dropAllDrafts } from '../common/fetched/saved-drafts.ts';
import { useFrame } from '../common/frame-context.tsx';
import { DAY } from '../common/times.ts';

/** Somewhere to go, or something to do, by its line in the list. */
export interface PlainGoal {
  readonly label: string;
  readonly goal: string;
  /** Other words it is found by, which aren't shown. */
  readonly also?: string;
  /** What is done in place of going there. */
  readonly act?: () => Promise<void>;
}

const VIEWS = ['day', 'week', 'five', 'month', 'list', 'side'] as const;

/** Signs out of this window, and drops what was typed in it and not saved. */
export async function signOut(): Promise<void> {
  await call('signOut', {}).catch(() => {});
  dropAllDrafts();
  window.location.assign('/sign-in');
}

/** Everything one can go to or begin from wherever one is, for whom the window works. */
export function useGoals(people: PeopleAnswer['people']): PlainGoal[] {
  const t = useTranslations('finder');
  const also = useTranslations('finder.also');
  const view = useTranslations('board.view');
  const { frame, principal, style, now } = useFrame();
  return useMemo((): PlainGoal[] => {
    const mine = frame.me.handle;
    const who = principal?.handle ?? mine;
    const own = principal?.own ?? true;
    const whose = { own: own ? 'yes' : 'no', name: principal?.name ?? '' };
    const tomorrow = dateText(Math.floor(toWall(style.zone, now()) / DAY + 1) * DAY);
    const working = frame.me.inside && frame.principals.length > 0;
    return [
      {
        label: own ? t('newMine') : t('new', { name: principal?.name ?? '' }),
        goal: `/for/${who}/calendar?new=1`,
      },
      { label: t('today'), goal: `/for/${who}/calendar` },
      ...frame.principals.map((p) => ({
        label: p.own ? t('workSelf') : t('workFor', { name: p.name }),
        goal: `/for/${p.handle}/calendar`,
      })),
      ...(working
        ? [
            ...VIEWS.map((one) => ({
              label: t('view', { ...whose, view: view(one) }),
              goal: `/for/${who}/calendar?view=${one}`,
            })),
            { label: t('desk'), goal: `/for/${mine}/desk`, also: also('desk') },
            { label: t('openings', whose), goal: `/for/${who}/openings`, also: also('openings') },
            { label: t('print', whose), goal: `/for/${who}/day-sheet?day=${tomorrow}&print=1`, also: also('print') },
            { label: t('sheet', whose), goal: `/for/${who}/day-sheet`, also: also('print') },
            { label: t('away', whose), goal: `/for/${who}/calendar?away=1`, also: also('away') },
            { label: t('trail', whose), goal: `/for/${who}/trail`, also: also('trail') },
            { label: t('timeUse', whose), goal: `/for/${who}/time-use`, also: also('timeUse') },
          ]
        : []),
      ...(own && working
        ? [
            { label: t('import'), goal: `/for/${who}/calendar?panel=import`, also: also('import') },
            {
              label: t('export'),
              goal: '',
              also: also('export'),
              act: async () => window.location.assign(`/api/calendars/${principal?.calendar ?? ''}/file`),
            },
          ]
        : []),
      ...frame.principals
        .filter((p) => p.share)
        .map((p) => ({
          label: p.own ? t('sightlinesMine') : t('sightlines', { name: p.name }),
          goal: `/for/${p.handle}/sightlines`,
          also: also('sightlines'),
        })),
      ...(frame.principals.some((p) => p.own && p.share)
        ? [{ label: t('give'), goal: `/for/${mine}/sightlines?give=1`, also: also('sightlines') }]
        : []),
      ...(frame.me.inside ? [{ label: t('granted'), goal: `/for/${mine}/granted`, also: also('granted') }] : []),
      { label: t('messages'), goal: `/for/${who}/messages` },
      ...frame.principals
        .filter((p) => p.tasks)
        .map((p) => ({
          label: p.own ? t('tasksMine') : t('tasksOf', { name: p.name }),
          goal: `/for/${p.handle}/tasks`,
        })),
      ...frame.principals
        .filter((p) => p.contacts)
        .map((p) => ({
          label: p.own ? t('contactsMine') : t('contactsOf', { name: p.name }),
          goal: `/for/${p.handle}/contacts`,
        })),
      ...(frame.me.inside
        ? frame.principals.map((p) => ({
            label: p.own ? t('everythingMine') : t('everythingOf', { name: p.name }),
            goal: `/for/${p.handle}/everything`,
          }))
        : []),
      { label: t('people'), goal: `/for/${who}/people` },
      ...(frame.me.inside ? [{ label: t('houseRules'), goal: `/for/${who}/house-rules` }] : []),
      { label: t('settings'), goal: `/for/${mine}/settings`, also: also('settings') },
      { label: t('signOut'), goal: '', act: signOut, also: also('signOut') },
      ...people
        .filter((p) => p.rights.sight !== 'nothing' && p.handle !== mine)
        .map((p) => ({ label: t('look', { name: p.name }), goal: `/for/${mine}/calendar?of=${p.handle}` })),
      ...people
        .filter((p) => p.lists.length > 0 && !frame.principals.some(({ handle }) => handle === p.handle))
        .map((p) => ({ label: t('everythingOf', { name: p.name }), goal: `/for/${mine}/everything?of=${p.handle}` })),
      ...(principal?.share
        ? people
            .filter((p) => p.handle !== who && p.handle !== mine)
            .map((p) => ({
              label: t('giveTo', { ...whose, who: p.name }),
              goal: `/for/${who}/sightlines?who=${encodeURIComponent(`person:${p.handle}`)}`,
              also: also('sightlines'),
            }))
        : []),
    ];
  }, [frame, people, principal, style.zone, now, t, also, view]);
}
