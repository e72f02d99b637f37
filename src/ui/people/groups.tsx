'use client';
import Alert from '@mui/material/Alert';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { GroupsAnswer } from '@/contract/people/people.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { fewPeople, personOption, type Someone } from '../common/fields/people-options.tsx';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';
import { RequestFreeBusy } from '../common/requests/request-free-busy.tsx';

type Group = GroupsAnswer['groups'][number];

/** The groups, who is in them, and of whom one sees no free/busy. An administrator makes them and moves people in and out, with effect at once. */
export function Groups(props: {
  people: readonly (Someone & { readonly handle: string })[];
  /** Whose main calendars one sees, by handle: at least when they are free or busy, or nothing of. */
  seen: ReadonlyMap<string, boolean>;
}) {
  const { people, seen } = props;
  const t = useTranslations('groups');
  const { toast } = useFrame();
  const client = useQueryClient();
  const query = useQuery({ queryKey: KEYS.groups, queryFn: () => call('listGroups', {}) });
  const [name, setName] = useState('');
  const { attempt, refused, fields } = useActing(['name']);
  const act = (work: () => Promise<unknown>, text: string): Promise<boolean> =>
    attempt(async () => {
      await work();
      toast({ text });
      await client.invalidateQueries({ queryKey: KEYS.groups });
    });
  const set = (group: Group, handle: string, person: string, member: boolean) =>
    act(
      () => call('setMembership', { params: { group: group.key }, body: { handle, member } }),
      t(member ? 'joined' : 'left', { person, name: group.name }),
    );
  const nest = (outer: Group, inner: Pick<Group, 'key' | 'name'>, within: boolean) =>
    act(
      () => call('setWithin', { params: { group: outer.key }, body: { group: inner.key, within } }),
      t(within ? 'joinedGroup' : 'leftGroup', { group: inner.name, name: outer.name }),
    );
  const mayChange = query.data?.mayChange === true;
  return (
    <section aria-label={t('title')} className="gap-6 above-8 stack">
      <h2>{t('title')}</h2>
      <QueryState query={query} />
      {refused && <Alert severity="error">{refused}</Alert>}
      {query.data?.groups.length === 0 && <p className="soft">{t('none')}</p>}
      {query.data?.groups.map((group) => (
        <article key={group.key} className={pageCss.card}>
          <h3>
            {group.name} <span className="soft small">{t('members', { count: group.people })}</span>
          </h3>
          <Shown members={everyoneIn(group, query.data?.groups ?? [])} people={people} seen={seen} />
          <div className="row above-3">
            {group.members.map((m) => (
              <span key={m.handle} className={pageCss.tag}>
                {m.name}
                {mayChange && (
                  <button
                    type="button"
                    className="plain"
                    aria-label={t('remove', { person: m.name, name: group.name })}
                    onClick={() => void set(group, m.handle, m.name, false)}
                  >
                    ×
                  </button>
                )}
              </span>
            ))}
            {group.within.map((inner) => (
              <span key={inner.key} className={pageCss.tag}>
                <b>{inner.name}</b>
                {mayChange && (
                  <button
                    type="button"
                    className="plain"
                    aria-label={t('removeGroup', { group: inner.name, name: group.name })}
                    onClick={() => void nest(group, inner, false)}
                  >
                    ×
                  </button>
                )}
              </span>
            ))}
            {mayChange && (
              <Autocomplete
                key={`groups ${group.within.length}`}
                size="small"
                className="field-4"
                options={(query.data?.groups ?? []).filter(
                  (g) => g.key !== group.key && !group.within.some((w) => w.key === g.key),
                )}
                getOptionLabel={(g) => g.name}
                getOptionKey={(g) => g.key}
                onChange={(_, g) => g && void nest(group, g, true)}
                renderInput={(params) => <TextField {...params} label={t('addGroup', { name: group.name })} />}
              />
            )}
            {mayChange && (
              <Autocomplete
                key={group.members.length}
                size="small"
                className="field-4"
                options={people.filter((p) => !group.members.some((m) => m.handle === p.handle))}
                getOptionLabel={(p) => p.name}
                getOptionKey={(p) => p.handle}
                filterOptions={fewPeople}
                renderOption={personOption}
                onChange={(_, p) => p && void set(group, p.handle, p.name, true)}
                renderInput={(params) => <TextField {...params} label={t('add', { name: group.name })} />}
              />
            )}
          </div>
        </article>
      ))}
      {mayChange && (
        <form
          className="row top"
          onSubmit={async (event) => {
            event.preventDefault();
            if (await act(() => call('makeGroup', { body: { name } }), t('made', { name }))) setName('');
          }}
        >
          <TextField
            label={t('name')}
            value={name}
            error={!!fields.name}
            helperText={fields.name}
            onChange={(e) => setName(e.target.value)}
            className="field-5"
          />
          <Button type="submit" variant="outlined">
            {t('make')}
          </Button>
        </form>
      )}
    </section>
  );
}

/** Who stands in a group, by themselves or through the groups within it. */
function everyoneIn(group: Group, groups: readonly Group[]): Group['members'] {
  const within = new Set([group.key]);
  const members = new Map<string, Group['members'][number]>();
  for (const key of within) {
    const inner = groups.find((g) => g.key === key);
    for (const m of inner?.members ?? []) members.set(m.handle, m);
    for (const g of inner?.within ?? []) within.add(g.key);
  }
  return [...members.values()];
}

/** Whether one sees when each of some people is free or busy; those of whom one doesn't, by name, and one press that asks them. */
function Shown(props: {
  members: Group['members'];
  people: readonly (Someone & { readonly handle: string })[];
  seen: ReadonlyMap<string, boolean>;
}) {
  const { members, people, seen } = props;
  const t = useTranslations('groups');
  const others = members.filter((m) => seen.has(m.handle));
  if (others.length === 0) return null;
  const hidden = others.flatMap((m) => {
    const person = seen.get(m.handle) ? undefined : people.find((p) => p.handle === m.handle);
    return person ? [person] : [];
  });
  return (
    <div className={hidden.length > 0 ? 'small' : 'small soft'}>
      {hidden.length > 0 ? t('shownNot', { names: hidden.map((m) => m.name).join(', ') }) : t('shown')}{' '}
      <RequestFreeBusy people={hidden} />
    </div>
  );
}
