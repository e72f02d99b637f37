import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Radio from '@mui/material/Radio';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { AddressBookWire, ContactWire } from '@/contract/contacts.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import listsCss from '../common/lists/lists.module.css';
import pageCss from '../common/page.module.css';

type Said = (text: string, undo: string) => Promise<void>;

/** Contacts that are likely one and the same: which one stays is chosen, and one press makes one of them. */
export function Alike(props: { book: AddressBookWire; onMerged: Said; onOpen: (id: string) => void }) {
  const { book, onMerged, onOpen } = props;
  const t = useTranslations('contacts');
  const query = useQuery({
    queryKey: KEYS.alikeContacts(book.key),
    queryFn: () => call('listAlikeContacts', { params: { book: book.key } }),
    retry: false,
  });
  return (
    <div className={listsCss.cards}>
      <QueryState query={query} />
      {query.data?.groups.length === 0 && <p className="soft">{t('noAlike')}</p>}
      {query.data?.cut && <Alert severity="info">{t('alikeCut')}</Alert>}
      <ul className="list gap-6 stack">
        {query.data?.groups.map((group) => (
          <Group key={group.map(({ id }) => id).join()} {...{ group, book, onMerged, onOpen }} />
        ))}
      </ul>
    </div>
  );
}

/** The one that says most: likeliest the one to keep. */
const fullest = (group: readonly ContactWire[]): ContactWire | undefined =>
  group.toSorted((a, b) => JSON.stringify(b).length - JSON.stringify(a).length)[0];

function Group(props: {
  group: readonly ContactWire[];
  book: AddressBookWire;
  onMerged: Said;
  onOpen: (id: string) => void;
}) {
  const { group, book, onMerged, onOpen } = props;
  const t = useTranslations('contacts');
  const [stays, setStays] = useState(() => fullest(group)?.id ?? '');
  const { attempt, busy, refused, fields } = useActing(['contacts']);
  const first = group.find(({ id }) => id === stays) ?? group[0];
  const merge = () =>
    attempt(async () => {
      const ordered = [first, ...group.filter((one) => one !== first)].flatMap((one) => one ?? []);
      const body = { contacts: ordered.map(({ id, version = 0 }) => ({ id, version })) };
      const { undo } = await call('mergeContacts', { params: { book: book.key }, body });
      await onMerged(t('merged', { name: first?.name ?? '', count: group.length }), undo);
    });
  return (
    <li className={pageCss.card}>
      <fieldset className="bare">
        <legend className="small soft">{t('staysOf', { count: group.length })}</legend>
        {group.map((contact) => (
          <div key={contact.id} className="row gap-2 nowrap">
            <Radio
              size="small"
              checked={contact.id === stays}
              onChange={() => setStays(contact.id)}
              slotProps={{ input: { 'aria-label': t('stays', { name: contact.name }) } }}
            />
            <Button variant="text" onClick={() => onOpen(contact.id)}>
              {contact.name}
            </Button>
            <span className="small soft">
              {[
                contact.role,
                contact.organisation,
                ...(contact.addresses ?? []).map(({ value }) => value),
                ...(contact.phones ?? []).map(({ value }) => value),
              ]
                .filter(Boolean)
                .join(' · ')}
            </span>
          </div>
        ))}
      </fieldset>
      {(refused || fields.contacts) && <Alert severity="error">{refused ?? fields.contacts}</Alert>}
      <Button variant="contained" loading={busy} onClick={() => void merge()}>
        {t('merge', { name: first?.name ?? '' })}
      </Button>
    </li>
  );
}
