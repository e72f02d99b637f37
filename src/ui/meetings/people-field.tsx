'use client';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { usePaused } from '../common/fetched/preview.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { type Choice, choiceOption, fewChoices, holdsWords } from '../common/fields/people-options.tsx';
import { useContactsLike } from './contacts-like.ts';
import type { InvitedPerson, Said } from './heard.ts';
import meetingsCss from './meetings.module.css';
import { readPeople } from './read-people.ts';

/** Somebody, a room or a group to choose. */
interface ToInvite extends Choice {
  readonly people: readonly InvitedPerson[];
}

/** So long after the last stroke it is asked who can come. */
const PAUSE_MS = 250;
const ASK_AGAIN_MS = 10_000;

/**
 * Who comes: people by name, groups as one or spelled out, rooms and things, outside addresses, each as one who must be there or may. Beside each,
 * whether they can come then, from what the viewer sees.
 */
export function PeopleField(props: {
  calendar: string;
  owner: string;
  people: readonly InvitedPerson[];
  when: Said['when'] | null;
  item: string | null;
  disabled: boolean;
  onChange: (people: readonly InvitedPerson[]) => void;
}) {
  const { calendar, owner, people, when, item, disabled, onChange } = props;
  const t = useTranslations('meetings');
  const [typed, setTyped] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const directory = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}), staleTime: 60_000 });
  const groups = useQuery({
    queryKey: KEYS.groups,
    queryFn: () => call('listGroups', {}),
    staleTime: 60_000,
    retry: false,
  });
  const can = useComing(calendar, when, people, item);

  const contacts = useContactsLike(typed);

  const known = (directory.data?.people ?? []).filter((p) => p.address !== owner);
  const byHandle = new Map(known.map((p) => [p.handle, p]));
  const choices: ToInvite[] = [
    ...known.map((p) => ({
      key: p.address,
      name: p.name,
      about: p.resource
        ? t('room', { kind: p.resource, place: p.site, size: p.size ?? 0 })
        : [p.role, p.address].filter(Boolean).join(' · '),
      people: [{ address: p.address, name: p.name, role: 'must' as const, group: null }],
    })),
    ...(groups.data?.groups ?? []).map((g) => {
      const within = (groups.data?.groups ?? []).filter((other) => g.within.some((w) => w.key === other.key));
      const handles = new Set([g, ...within].flatMap((one) => one.members.map((m) => m.handle)));
      const members = [...handles].flatMap((handle) => byHandle.get(handle) ?? []);
      const group = { key: g.key, name: g.name };
      return {
        key: `group ${g.key}`,
        name: g.name,
        about: t('group', { count: members.length }),
        people: members.map((p) => ({ address: p.address, name: p.name, role: 'must' as const, group })),
      };
    }),
  ];
  const inHouse = new Set(known.map((p) => p.address.toLowerCase()));
  choices.push(
    ...contacts
      .filter((c) => !inHouse.has(c.address.toLowerCase()))
      .map((c) => ({
        key: `contact ${c.address}`,
        name: c.name,
        about: [c.organisation, c.address, t('contact')].filter(Boolean).join(' · '),
        found: true,
        people: [{ address: c.address.toLowerCase(), name: c.name, role: 'must' as const, group: null }],
      })),
  );
  const add = (more: readonly InvitedPerson[]) => {
    const fresh = more.filter((m) => m.address !== owner && !people.some((p) => p.address === m.address));
    const named = fresh.map((m) => ({ ...m, name: known.find((p) => p.address === m.address)?.name ?? m.name }));
    onChange([...people, ...named]);
  };
  const take = (value: string | ToInvite | null) => {
    setWrong(null);
    if (value === null) return;
    if (typeof value !== 'string') {
      add(value.people);
      setTyped('');
      return;
    }
    // A name that only one of them has is that one, whether or not they were the one marked in the list just then.
    const [one, ...others] = choices.filter((choice) => holdsWords(choice.name, value));
    if (one && others.length === 0 && value.trim() !== '') {
      add(one.people);
      setTyped('');
      return;
    }
    const read = readPeople(value);
    if (read.people.length > 0) add(read.people);
    setTyped(read.rest);
    if (read.rest) setWrong(t('nobody', { text: read.rest }));
  };
  const change = (which: (p: InvitedPerson) => boolean, more: Partial<InvitedPerson>) =>
    onChange(people.map((p) => (which(p) ? { ...p, ...more } : p)));
  const invitedGroups = [
    ...new Map(people.flatMap((p) => (p.group ? [[p.group.key, p.group] as const] : []))).values(),
  ];
  return (
    <section aria-label={t('who')} className="stack">
      <Autocomplete<ToInvite, false, false, true>
        freeSolo
        disabled={disabled}
        options={choices}
        value={null}
        inputValue={typed}
        onInputChange={(_, text, reason) => reason !== 'reset' && setTyped(text)}
        onChange={(_, value) => take(value)}
        // Enter takes who was typed, and sends nothing.
        onKeyDown={(event) => event.key === 'Enter' && typed.trim() !== '' && event.preventDefault()}
        onBlur={() => typed.includes('@') && take(typed)}
        getOptionLabel={(o) => (typeof o === 'string' ? o : o.name)}
        filterOptions={fewChoices}
        renderOption={choiceOption}
        renderInput={(params) => (
          <TextField
            {...params}
            label={t('who')}
            placeholder={t('whoHint')}
            error={wrong !== null}
            helperText={wrong}
            slotProps={{ ...params.slotProps, inputLabel: { ...params.slotProps.inputLabel, shrink: true } }}
          />
        )}
      />
      {people.length > 0 && (
        <ul className={meetingsCss.people}>
          {invitedGroups.map((g) => {
            const all = people.filter((p) => p.group?.key === g.key);
            const within = (p: InvitedPerson) => p.group?.key === g.key;
            const busy = all.filter((p) => ['busy', 'away'].includes(can.get(p.address)?.can ?? '')).length;
            const unknown = all.filter((p) => (can.get(p.address)?.can ?? 'unknown') === 'unknown').length;
            const role = all[0]?.role ?? 'must';
            return (
              <li key={g.key}>
                <span className={meetingsCss.who}>
                  {g.name}
                  <small>
                    {t('asGroup', { count: all.length })} ·{' '}
                    <span className={busy > 0 ? 'wrong' : undefined}>
                      {t('groupCan', { free: all.length - busy - unknown, busy, unknown })}
                    </span>
                  </small>
                </span>
                <Button
                  variant="text"
                  disabled={disabled}
                  aria-label={t('roleOf', { name: g.name, role })}
                  onClick={() => change(within, { role: role === 'must' ? 'may' : 'must' })}
                  className="tiny"
                >
                  {t(`role.${role}`)}
                </Button>
                <Button
                  variant="text"
                  disabled={disabled}
                  aria-label={t('takeOut', { name: g.name })}
                  onClick={() => onChange(people.filter((p) => !within(p)))}
                  className="tiny"
                >
                  ×
                </Button>
                <Button
                  variant="text"
                  disabled={disabled}
                  className={`${meetingsCss.wide} flush own-width`}
                  onClick={() => change(within, { group: null })}
                >
                  {t('spellOut', { name: g.name })}
                </Button>
              </li>
            );
          })}
          {people.map((p) => {
            if (p.group) return null;
            const found = can.get(p.address);
            const outside = found ? !found.inside : !known.some((k) => k.address === p.address);
            const name = p.name ?? p.address;
            return (
              <li key={p.address}>
                <span className={meetingsCss.who}>
                  {name}
                  <small>
                    {outside && p.name ? `${p.address} · ` : ''}
                    {outside ? `${t('outside')} · ` : ''}
                    <span className={found?.can === 'busy' || found?.can === 'away' ? 'wrong' : undefined}>
                      {t(`can.${found?.can ?? 'unknown'}`)}
                    </span>
                  </small>
                </span>
                <Button
                  variant="text"
                  disabled={disabled}
                  aria-label={t('roleOf', { name, role: p.role })}
                  onClick={() => change((one) => one === p, { role: p.role === 'must' ? 'may' : 'must' })}
                  className="tiny"
                >
                  {t(`role.${p.role}`)}
                </Button>
                <Button
                  variant="text"
                  disabled={disabled}
                  aria-label={t('takeOut', { name })}
                  onClick={() => onChange(people.filter((one) => one.address !== p.address))}
                  className="tiny"
                >
                  ×
                </Button>
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}

/** Who can come then, as far as one sees it; asked once typing pauses. */
function useComing(calendar: string, when: Said['when'] | null, people: readonly InvitedPerson[], item: string | null) {
  const body = when && people.length > 0 ? JSON.stringify({ when, people: people.map((p) => p.address), item }) : null;
  const settled = usePaused(body, PAUSE_MS);
  const query = useQuery({
    queryKey: KEYS.calendar(calendar, 'coming', settled),
    queryFn: () => call('whoCanCome', { params: { calendar }, body: JSON.parse(settled ?? '{}') }),
    enabled: settled !== null,
    placeholderData: (before) => before,
    // Their weeks go on while one types.
    refetchInterval: ASK_AGAIN_MS,
    retry: false,
  });
  return new Map((query.data?.people ?? []).map((p) => [p.address, p]));
}
