import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { AddressBookWire, ContactPatch, ContactWire } from '@/contract/contacts.ts';
import { ADDRESS_PLACES, PHONE_PLACES } from '@/core/contacts/index.ts';
import boardsCss from '../common/boards.module.css';
import { useActing } from '../common/fetched/acting.ts';
import { SeenChoice } from '../common/lists/seen-choice.tsx';
import { firstName } from '../common/token.tsx';
import { type Typed, touched, typedOf } from './contact-typed.ts';

/** The form of a contact: of one that is there only what was touched is sent. What is typed stays until it is saved or left. */
export function ContactForm(props: {
  contact: ContactWire | null;
  book: AddressBookWire;
  /** `version` is the one that what is typed was typed over. */
  onSave: (fields: ContactPatch['fields'], version: number) => Promise<void>;
  onLeave: () => void;
  onStale?: () => Promise<unknown>;
}) {
  const { contact, book, onSave, onLeave, onStale } = props;
  const t = useTranslations('contacts');
  const [from, setFrom] = useState({ version: contact?.version ?? 0, typed: typedOf(contact) });
  const [typed, setTyped] = useState(from.typed);
  const set = (more: Partial<Typed>) => setTyped({ ...typed, ...more });
  const changes = touched(from.typed, typed);
  const isTouched = Object.keys(changes).length > 0;
  const { attempt, busy, refused, fields } = useActing();
  /** The sentence at a field, or at the first of its parts. */
  const wrongAt = (name: string) =>
    fields[name] ?? Object.entries(fields).find(([field]) => field.startsWith(`${name}.`))?.[1];
  const save = () =>
    attempt(
      () => onSave(contact ? changes : { ...changes, name: typed.name }, from.version),
      (why) => {
        if (why.code !== 'changedMeanwhile') return Object.keys(why.fields).length > 0 ? null : why.sentence;
        const now = why.data as ContactWire | null;
        if (now) setFrom({ version: now.version ?? 0, typed: typedOf(now) });
        void onStale?.();
        return t('meanwhile');
      },
    );
  const text = (name: 'name' | 'role' | 'organisation' | 'place' | 'link' | 'notes' | 'categories', more = {}) => (
    <TextField
      label={t(name)}
      value={typed[name]}
      error={!!wrongAt(name)}
      helperText={wrongAt(name)}
      onChange={(event) => set({ [name]: event.target.value })}
      slotProps={{ inputLabel: { shrink: true } }}
      {...more}
    />
  );
  return (
    <form
      noValidate
      className="gap-6 stack"
      onSubmit={(event) => {
        event.preventDefault();
        if (isTouched) void save();
      }}
    >
      {refused && <Alert severity="error">{refused}</Alert>}
      {text('name', { autoFocus: true })}
      {text('role')}
      {text('organisation')}
      <Ways
        name="addresses"
        places={ADDRESS_PLACES}
        ways={typed.addresses}
        fields={fields}
        onChange={(addresses) => set({ addresses })}
      />
      <Ways
        name="phones"
        places={PHONE_PLACES}
        ways={typed.phones}
        fields={fields}
        onChange={(phones) => set({ phones })}
      />
      {text('place')}
      {text('link')}
      {text('notes', { multiline: true, minRows: 3, maxRows: 12 })}
      {text('categories', { placeholder: t('categoriesHelp') })}
      <SeenChoice of="contacts" value={typed.visibility} onChange={(visibility) => set({ visibility })} />
      <div className={`row ${boardsCss['save-row']}`}>
        <Button type="submit" variant="contained" loading={busy} disabled={!isTouched}>
          {t('save', { own: String(book.own), name: firstName(book.owner.name) })}
        </Button>
        <Button variant="text" onClick={onLeave}>
          {t('cancel')}
        </Button>
      </div>
    </form>
  );
}

/** Ways to reach somebody: one line each, and always an empty one behind them to type the next into. */
function Ways<W extends string>(props: {
  name: 'addresses' | 'phones';
  places: readonly W[];
  ways: readonly { readonly value: string; readonly as: W }[];
  /** What is wrong, by the field and the line of it. */
  fields: Readonly<Record<string, string>>;
  onChange: (ways: { value: string; as: W }[]) => void;
}) {
  const { name, places, ways, fields, onChange } = props;
  const t = useTranslations('contacts');
  const rows = [...ways, { value: '', as: '' as W }];
  const put = (index: number, more: Partial<{ value: string; as: W }>) => {
    const next = rows.map((way, i) => (i === index ? { ...way, ...more } : way));
    // An empty line that isn't the last is one that was emptied: it stays until it is left, so that typing goes on in it.
    onChange(next.filter((way, i) => i === index || way.value !== '' || i < ways.length));
  };
  const tidy = () => onChange(ways.filter(({ value }) => value.trim() !== ''));
  return (
    <fieldset className="bare stack">
      <legend className="small soft">{t(name)}</legend>
      {rows.map(({ value, as }, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a line is the one at its place
        <div key={index} className="stack with-time">
          <TextField
            value={value}
            type={name === 'addresses' ? 'email' : 'tel'}
            placeholder={t(name === 'addresses' ? 'newAddress' : 'newPhone')}
            onChange={(event) => put(index, { value: event.target.value })}
            onBlur={tidy}
            error={fields[`${name}.${index}.value`] !== undefined}
            helperText={fields[`${name}.${index}.value`]}
            slotProps={{ htmlInput: { 'aria-label': t(name === 'addresses' ? 'address' : 'phone', { n: index + 1 }) } }}
          />
          <TextField
            select
            value={as}
            onChange={(event) => put(index, { as: event.target.value as W })}
            slotProps={{
              select: { displayEmpty: true },
              htmlInput: { 'aria-label': t('whereOf', { n: index + 1, what: t(name) }) },
            }}
          >
            {places.map((place) => (
              <MenuItem key={place} value={place}>
                {t(`as.${(place || 'none') as 'none'}`)}
              </MenuItem>
            ))}
          </TextField>
        </div>
      ))}
      {fields[name] && (
        <p className="wrong small" role="alert">
          {fields[name]}
        </p>
      )}
    </fieldset>
  );
}
