'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call, sendContacts } from '@/contract/call.ts';
import type { AddressBookWire, ContactsAnswer } from '@/contract/contacts.ts';
import { useContactActs } from '../common/fetched/contact-acts.ts';
import { usePaused } from '../common/fetched/preview.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { ListFile } from '../common/lists/list-file.tsx';
import { ListHead } from '../common/lists/list-head.tsx';
import listsCss from '../common/lists/lists.module.css';
import { ListsPage } from '../common/lists/lists-page.tsx';
import { firstName } from '../common/token.tsx';
import { useAddress } from '../common/use-address.ts';
import { Alike } from './alike.tsx';
import { ContactPanel, NewContactPanel } from './contact-panel.tsx';
import { ContactRows } from './contact-rows.tsx';

/** So long after the last stroke contacts are looked for. */
const PAUSE_MS = 150;

/** Somebody's address books, the contacts of the chosen one, and the one that is looked at. */
export function Contacts({ who }: { who: string }) {
  const t = useTranslations('contacts');
  const query = useQuery({
    queryKey: KEYS.addressBooks(who),
    queryFn: () => call('listAddressBooks', { params: { person: who } }),
    retry: false,
  });
  const { frame } = useFrame();
  const me = frame.me.handle;
  // A copy can be made in one's own, whosever contacts one reads.
  const mine = useQuery({
    queryKey: KEYS.addressBooks(me),
    queryFn: () => call('listAddressBooks', { params: { person: me } }),
    enabled: who !== me,
    retry: false,
  });
  const count = (book: AddressBookWire) => (book.count === null ? t('many') : book.count > 0 ? String(book.count) : '');
  return (
    <ListsPage of="contacts" who={who} query={query} count={count}>
      {(chosen, lists, others) => (
        <Book key={chosen.key} book={chosen} mine={[...lists, ...others, ...(mine.data?.lists ?? [])]} />
      )}
    </ListsPage>
  );
}

function Book({ book: known, mine }: { book: AddressBookWire; mine: readonly AddressBookWire[] }) {
  const t = useTranslations('contacts');
  const { search, go } = useAddress();
  const [typed, setTyped] = useState('');
  const words = usePaused(typed.trim(), PAUSE_MS);
  const query = useInfiniteQuery({
    queryKey: KEYS.contacts(known.key, words),
    queryFn: ({ pageParam }) =>
      call('listContacts', {
        params: { book: known.key },
        query: { ...(words ? { words } : {}), ...(pageParam ? { after: pageParam } : {}) },
      }),
    initialPageParam: '',
    getNextPageParam: (page: ContactsAnswer) => page.more ?? undefined,
    placeholderData: (before) => before,
    retry: false,
  });
  const { said, again } = useContactActs();
  const book = query.data?.pages[0]?.list ?? known;
  const contacts = query.data?.pages.flatMap((page) => page.contacts) ?? [];
  const cut = query.data?.pages[0]?.cut === true;
  const open = search.get('contact');
  const detailed = search.get('rows') === 'all';
  const alike = search.get('alike') === '1';
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = query;
  const owner = firstName(book.owner.name);
  const name = book.name || t('firstList');
  // Below full a contact is shown where it is listed; in full it has an address of its own.
  const listed = contacts.find(({ id }) => id === open);
  const close = () => go({ contact: null });
  return (
    <>
      <main className={`${listsCss.main} who-${book.owner.colour % 6}`} aria-label={name}>
        <ListHead
          of="contacts"
          list={book}
          count={book.count === null ? t('countMany') : t('count', { count: book.count })}
        >
          {book.may.files && (
            <ListFile
              of="contacts"
              href={`/api/books/${book.key}/file`}
              accept=".vcf,text/vcard"
              send={(file) => sendContacts(book.key, file)}
              onDone={said}
            />
          )}
          {book.may.add && (
            <Button
              variant="text"
              aria-pressed={alike}
              onClick={() => go({ alike: alike ? null : '1', contact: null })}
            >
              {t(alike ? 'showAll' : 'findAlike')}
            </Button>
          )}
        </ListHead>
        {alike ? (
          <Alike book={book} onMerged={said} onOpen={(id) => go({ contact: id })} />
        ) : (
          <>
            <div className={listsCss.seek}>
              <TextField
                value={typed}
                onChange={(event) => setTyped(event.target.value)}
                placeholder={t('search')}
                slotProps={{ htmlInput: { 'aria-label': t('search'), maxLength: 200 } }}
              />
              <Button variant="text" aria-pressed={detailed} onClick={() => go({ rows: detailed ? null : 'all' })}>
                {t(detailed ? 'short' : 'detailed')}
              </Button>
              {book.may.add && (
                <Button variant="contained" onClick={() => go({ contact: 'new' })}>
                  {t('new', { own: String(book.own), name: owner })}
                </Button>
              )}
            </div>
            <QueryState query={query} />
            {cut && <Alert severity="info">{t('cut')}</Alert>}
            {query.data && contacts.length === 0 && (
              <p className={`soft ${listsCss.note}`}>
                {t(words ? 'nobodyFound' : book.may.add ? 'noneYet' : 'none', { words })}
              </p>
            )}
            <ContactRows
              contacts={contacts}
              detailed={detailed}
              lettered={words === ''}
              current={open}
              onOpen={(contact) => go({ contact: contact.id === open ? null : contact.id })}
              onEnd={() => hasNextPage && !isFetchingNextPage && void fetchNextPage()}
              more={hasNextPage}
            />
          </>
        )}
      </main>
      {open === 'new' && book.may.add && (
        <NewContactPanel
          key="new"
          book={book}
          onClose={close}
          onSaved={async (text, undo, contact) => {
            go({ contact: contact?.id ?? null });
            await said(text, undo);
          }}
        />
      )}
      {open !== null && open !== 'new' && (
        <ContactPanel
          key={open}
          id={open}
          listed={listed ?? null}
          book={book}
          mine={mine.filter(({ may, key }) => may.add && key !== book.key)}
          onClose={close}
          onSaved={said}
          onStale={again}
        />
      )}
    </>
  );
}
