'use client';
import ButtonBase from '@mui/material/ButtonBase';
import { type KeyboardEvent, useMemo } from 'react';
import { useTranslations } from 'use-intl';
import type { ContactWire } from '@/contract/contacts.ts';
import listsCss from '../common/lists/lists.module.css';
import { useRows } from '../common/lists/use-rows.ts';

/** The contacts of a book, the first of each letter beside it; only what is seen is drawn. The arrows go from one to the next. */
export function ContactRows(props: {
  contacts: readonly ContactWire[];
  /** With how to reach them, beside what they are. */
  detailed: boolean;
  lettered: boolean;
  current: string | null;
  more: boolean;
  onOpen: (contact: ContactWire) => void;
  /** The end of what is there was reached. */
  onEnd: () => void;
}) {
  const { contacts, detailed, lettered, current, more, onOpen, onEnd } = props;
  const t = useTranslations('contacts');
  const letters = useMemo(() => (lettered ? lettersOf(contacts) : []), [contacts, lettered]);
  const { box, virtual, shown, move } = useRows({
    count: contacts.length,
    height: () => (detailed ? 56 : 40),
    keyOf: (i) => contacts[i]?.id ?? i,
    more,
    onEnd,
  });
  return (
    <div ref={box} className={listsCss.rows}>
      <ol style={{ height: virtual.getTotalSize() }} aria-label={t('contacts')}>
        {shown.map(({ index, key, start }) => {
          const contact = contacts[index];
          if (!contact) return null;
          return (
            <li
              key={key}
              ref={virtual.measureElement}
              data-index={index}
              style={{ transform: `translateY(${start}px)` }}
            >
              <Row
                contact={contact}
                letter={letters[index] ?? ''}
                detailed={detailed}
                current={contact.id === current}
                onOpen={onOpen}
                onKey={(event) => move(event, index)}
              />
            </li>
          );
        })}
      </ol>
    </div>
  );
}

const letterOf = (name: string): string => {
  const first = name.normalize('NFKD').replace(/\p{M}/gu, '').charAt(0).toUpperCase();
  return /\p{L}/u.test(first) ? first : '#';
};

/** Of each contact its letter, where it is the first of it; else nothing. */
function lettersOf(contacts: readonly ContactWire[]): string[] {
  const letters = contacts.map(({ name }) => letterOf(name));
  return letters.map((letter, i) => (letter === letters[i - 1] ? '' : letter));
}

function Row(props: {
  contact: ContactWire;
  letter: string;
  detailed: boolean;
  current: boolean;
  onOpen: (contact: ContactWire) => void;
  onKey: (event: KeyboardEvent) => void;
}) {
  const { contact, letter, detailed, current, onOpen, onKey } = props;
  const t = useTranslations('contacts');
  const what = [contact.role, contact.organisation].filter(Boolean).join(' · ');
  const marks = [contact.inside ? t('insideShort') : '', contact.visibility === 'private' ? t('private') : ''];
  const ways = [...(contact.addresses ?? []), ...(contact.phones ?? [])].map(({ value }) => value);
  const reach = [contact.addresses?.[0]?.value, contact.phones?.[0]?.value].filter(Boolean);
  const more = [contact.place, ...(contact.categories ?? [])].filter(Boolean).join(' · ');
  return (
    <div className={`${listsCss.row} ${listsCss.whom}`} data-current={current ? '' : undefined}>
      <b className="small soft" aria-hidden>
        {letter}
      </b>
      <ButtonBase
        data-title=""
        className={listsCss.what}
        aria-expanded={current}
        onClick={() => onOpen(contact)}
        onKeyDown={onKey}
      >
        <span className={listsCss.title}>{contact.name}</span>
        {detailed && more && <span className="small soft">{more}</span>}
      </ButtonBase>
      <span className="small soft">{[what, ...marks].filter(Boolean).join(' · ')}</span>
      <span className={`small ${listsCss.reach}`}>{(detailed ? ways : reach).join(' · ')}</span>
    </div>
  );
}
