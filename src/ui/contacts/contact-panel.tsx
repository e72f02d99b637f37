'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { AddressBookWire, ContactWire } from '@/contract/contacts.ts';
import boardsCss from '../common/boards.module.css';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { said as saidOf } from '../common/fetched/refusal.ts';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';
import { atText } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import { AroundContact } from './contact-around.tsx';
import { ContactForm } from './contact-form.tsx';
import pictureCss from './contact-picture.module.css';
import { ContactFace, PictureActs } from './contact-picture.tsx';

/** What follows an act: what is said of it, and the key that takes it back. */
type Said = (text: string, undo: string, contact?: ContactWire | null) => Promise<void>;

function Panel(props: { name: string; book: AddressBookWire; onClose: () => void; children: React.ReactNode }) {
  const { name, book, onClose, children } = props;
  const t = useTranslations('contacts');
  return (
    <aside className={boardsCss.panel} aria-label={name}>
      <div className="row spread">
        <span className="small soft">
          {t('of', { own: String(book.own), name: book.owner.name, list: book.name || t('firstList') })}
        </span>
        <Button variant="text" onClick={onClose}>
          {t('close')}
        </Button>
      </div>
      {children}
    </aside>
  );
}

/** A new contact of a book, in its owner's name. */
export function NewContactPanel(props: { book: AddressBookWire; onClose: () => void; onSaved: Said }) {
  const { book, onClose, onSaved } = props;
  const t = useTranslations('contacts');
  const owner = firstName(book.owner.name);
  return (
    <Panel name={t('new', { own: String(book.own), name: owner })} book={book} onClose={onClose}>
      <h2>{t('new', { own: String(book.own), name: owner })}</h2>
      <ContactForm
        contact={null}
        book={book}
        onLeave={onClose}
        onSave={async (fields) => {
          const body = { ...fields, name: fields.name ?? '' };
          const { contact, undo } = await call('addContact', { params: { book: book.key }, body });
          await onSaved(t('added', { own: String(book.own), name: owner }), undo, contact);
        }}
      />
    </Panel>
  );
}

/** One contact: what one sees of it, and, for whoever may, its form. */
export function ContactPanel(props: {
  id: string;
  /** As it stands in the list. */
  listed: ContactWire | null;
  book: AddressBookWire;
  /** Other books that one may add to. */
  mine: readonly AddressBookWire[];
  onClose: () => void;
  onSaved: Said;
  onStale: () => Promise<unknown>;
}) {
  const { id, listed, book, onClose, onSaved, onStale } = props;
  const t = useTranslations('contacts');
  const tc = useTranslations('common');
  const below = listed !== null && listed.version === undefined;
  const query = useQuery({
    queryKey: KEYS.contact(id),
    queryFn: () => call('readContact', { params: { contact: id } }),
    enabled: !below,
    ...(listed && !below ? { placeholderData: listed } : {}),
    retry: false,
  });
  const client = useQueryClient();
  const [changing, setChanging] = useState(false);
  const contact = below ? listed : (query.data ?? null);
  // What is typed into its form stays, though it went meanwhile: saving says so.
  if (query.error && !changing)
    return (
      <Panel name={t('oneContact')} book={book} onClose={onClose}>
        <Alert severity="error">{saidOf(query.error, tc('unreachable')).sentence}</Alert>
      </Panel>
    );
  if (!contact) return null;
  return (
    <Panel name={contact.name} book={book} onClose={onClose}>
      {changing && contact.may?.change ? (
        <ContactForm
          contact={contact}
          book={book}
          onLeave={() => setChanging(false)}
          onStale={onStale}
          onSave={async (fields, version) => {
            const answer = await call('changeContact', { params: { contact: id }, body: { version, fields } });
            // What is pressed next is about the version that this made.
            if (answer.contact) client.setQueryData(KEYS.contact(id), answer.contact);
            setChanging(false);
            await onSaved(t('saved'), answer.undo);
          }}
        />
      ) : (
        <Read {...props} contact={contact} onChange={() => setChanging(true)} />
      )}
    </Panel>
  );
}

function Read(props: {
  contact: ContactWire;
  book: AddressBookWire;
  mine: readonly AddressBookWire[];
  onChange: () => void;
  onClose: () => void;
  onSaved: Said;
}) {
  const { contact, book, onChange, onClose, onSaved } = props;
  const t = useTranslations('contacts');
  const { style } = useFrame();
  const { attempt, busy, refused } = useActing();
  const full = contact.version !== undefined;
  const owner = firstName(book.owner.name);
  const remove = () =>
    attempt(async () => {
      const query = full ? { version: contact.version } : {};
      const { undo } = await call('removeContact', { params: { contact: contact.id }, query });
      onClose();
      await onSaved(t('removed', { name: contact.name }), undo);
    });
  const copy = (to: AddressBookWire) =>
    attempt(async () => {
      const { undo } = await call('copyContact', { params: { contact: contact.id }, body: { book: to.key } });
      await onSaved(t('copied', { own: String(to.own), name: firstName(to.owner.name) }), undo);
    });
  const mayChange = contact.may?.change === true;
  const mayRemove = contact.may?.remove === true || contact.mayRemove === true;
  return (
    <>
      <div className={pictureCss.head}>
        <ContactFace contact={contact} />
        <div>
          <h2>{contact.name}</h2>
          <p className="soft">{[contact.role, contact.organisation].filter(Boolean).join(' · ')}</p>
          {contact.inside && <p className="small">{t('inside', { name: contact.inside.name })}</p>}
        </div>
      </div>
      {!full ? (
        <p className="small soft">{t('seenBelow', { name: owner })}</p>
      ) : (
        !mayChange && <p className="small soft">{t('readOnlyOne', { name: owner })}</p>
      )}
      {refused && <Alert severity="error">{refused}</Alert>}
      <div className="row">
        {mayChange && (
          <Button variant="outlined" onClick={onChange}>
            {t('change')}
          </Button>
        )}
        {mayChange && <PictureActs contact={contact} onSaved={onSaved} />}
        {full && <Copy books={props.mine} busy={busy} onCopy={(to) => void copy(to)} />}
        {mayRemove && (
          <Button variant="text" loading={busy} onClick={() => void remove()}>
            {t('remove')}
          </Button>
        )}
      </div>
      <dl className={pageCss.facts}>
        {contact.addresses?.map(({ value, as }) => (
          <Fact key={value} name={t(`addressAs.${as || 'none'}`)}>
            <a href={`mailto:${encodeURIComponent(value).replaceAll('%40', '@')}`}>{value}</a>
          </Fact>
        ))}
        {contact.phones?.map(({ value, as }) => (
          <Fact key={value} name={t(`phoneAs.${as || 'none'}`)}>
            <a href={`tel:${value.replace(/[^\d+*#,;]/g, '')}`}>{value}</a>
          </Fact>
        ))}
        {contact.place && <Fact name={t('place')}>{contact.place}</Fact>}
        {contact.link && (
          <Fact name={t('link')}>
            <a href={contact.link} target="_blank" rel="noreferrer noopener">
              {contact.link}
            </a>
          </Fact>
        )}
        {contact.notes && (
          <Fact name={t('notes')}>
            <span className="lines">{contact.notes}</span>
          </Fact>
        )}
        {contact.categories && contact.categories.length > 0 && (
          <Fact name={t('categories')}>{contact.categories.join(', ')}</Fact>
        )}
        {contact.visibility && contact.visibility !== 'follow' && (
          <Fact name={t('seenAs')}>{t(`seen.${contact.visibility}`)}</Fact>
        )}
      </dl>
      {full && <AroundContact id={contact.id} />}
      {contact.changed && (
        <p className="small soft">
          {t('changedBy', {
            same: String(contact.changed.actor === contact.changed.principal),
            by: contact.changed.actor,
            for: contact.changed.principal,
            at: atText(contact.changed.at, style),
          })}
        </p>
      )}
    </>
  );
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <dt>{name}</dt>
      <dd className="anywhere">{children}</dd>
    </>
  );
}

/** A copy in another book: with one press where there is one, else in the one that is chosen. */
function Copy(props: { books: readonly AddressBookWire[]; busy: boolean; onCopy: (to: AddressBookWire) => void }) {
  const { books, busy, onCopy } = props;
  const t = useTranslations('contacts');
  const [only] = books;
  if (!only) return null;
  if (books.length === 1)
    return (
      <Button variant="outlined" loading={busy} onClick={() => onCopy(only)}>
        {t('copyTo', { own: String(only.own), name: firstName(only.owner.name), list: only.name || 'none' })}
      </Button>
    );
  return (
    <TextField
      select
      label={t('copy')}
      value=""
      fullWidth={false}
      className="field-3"
      disabled={busy}
      onChange={(event) => {
        const to = books.find(({ key }) => key === event.target.value);
        if (to) onCopy(to);
      }}
    >
      {books.map((to) => (
        <MenuItem key={to.key} value={to.key}>
          {t('of', { own: String(to.own), name: to.owner.name, list: to.name || t('firstList') })}
        </MenuItem>
      ))}
    </TextField>
  );
}
