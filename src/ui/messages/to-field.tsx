import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { choiceOption, fewChoices } from '../common/fields/people-options.tsx';
import { useContactsLike } from '../meetings/contacts-like.ts';

/** Somebody a mail can go to. */
interface To {
  readonly key: string;
  readonly name: string;
  readonly about: string;
  readonly address: string;
  readonly found?: boolean;
}

/** To whom a mail goes, as one text with commas between: the name that is being typed is looked for in the house and among the contacts one sees. */
export function ToField(props: {
  value: string;
  wrong: string | undefined;
  autoFocus: boolean;
  onChange: (value: string) => void;
}) {
  const { value, wrong, autoFocus, onChange } = props;
  const t = useTranslations();
  const comma = Math.max(value.lastIndexOf(','), value.lastIndexOf(';'));
  const typed = value.slice(comma + 1).trim();
  const directory = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}), staleTime: 60_000 });
  const contacts = useContactsLike(typed);
  const known: To[] = (directory.data?.people ?? [])
    .filter((p) => !p.resource)
    .map((p) => ({
      key: p.address,
      name: p.name,
      about: [p.role, p.address].filter(Boolean).join(' · '),
      address: p.address,
    }));
  const house = new Set(known.map(({ address }) => address.toLowerCase()));
  const options: To[] = [
    ...known,
    ...contacts
      .filter((c) => !house.has(c.address.toLowerCase()))
      .map((c) => ({
        key: `contact ${c.address}`,
        name: c.name,
        about: [c.organisation, c.address, t('meetings.contact')].filter(Boolean).join(' · '),
        address: c.address,
        found: true,
      })),
  ];
  const take = (to: To) => {
    const before = value.slice(0, comma + 1);
    const name = to.name.replace(/[<>,;"]/g, '');
    onChange(`${before}${before === '' ? '' : ' '}${name} <${to.address}>, `);
  };
  return (
    <Autocomplete<To, false, false, true>
      freeSolo
      options={options}
      value={null}
      inputValue={value}
      onInputChange={(_, text, reason) => (reason === 'input' || reason === 'clear') && onChange(text)}
      onChange={(_, to) => to !== null && typeof to !== 'string' && take(to)}
      getOptionLabel={(o) => (typeof o === 'string' ? o : o.name)}
      getOptionKey={(o) => (typeof o === 'string' ? o : o.key)}
      // Whole addresses need nobody to be chosen.
      filterOptions={(all) => (typed.includes('@') ? [] : fewChoices(all, { inputValue: typed }))}
      renderOption={choiceOption}
      // Enter in it chooses somebody, and sends nothing.
      onKeyDown={(event) => event.key === 'Enter' && event.preventDefault()}
      renderInput={(params) => (
        <TextField
          {...params}
          label={t('threads.to')}
          autoFocus={autoFocus}
          error={wrong !== undefined}
          helperText={wrong ?? t('threads.toHelp')}
          slotProps={{ ...params.slotProps, inputLabel: { ...params.slotProps.inputLabel, shrink: true } }}
        />
      )}
    />
  );
}
