'use client';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useTranslations } from 'use-intl';
import type { AudienceWire, SightlinesAnswer } from '@/contract/sharing/sharing.ts';
import { holdsWords } from '../../common/fields/people-options.tsx';
import { firstName } from '../../common/token.tsx';
import { audienceParam } from '../audience-param.ts';
import { listedAt, readTyped } from './typed.ts';

/** Somebody who was picked and has no row yet. */
export interface Picked {
  readonly audience: AudienceWire;
  readonly name: string;
  readonly detail: string;
  readonly outside: boolean;
}
interface Option extends Picked {
  readonly group: string;
  readonly note: string;
}

const SHOWN = 40;

/** Whom to give access: a name or address with those first with whom the owner has most to do, a group, an outside address, a link. */
export function Picker(props: { lines: SightlinesAnswer; onPick: (picked: Picked) => void; onClose: () => void }) {
  const { lines, onPick, onClose } = props;
  const t = useTranslations('lines');
  const tp = useTranslations('people');
  const near = t('near', { owner: firstName(lines.owner.name) });
  const options: Option[] = [
    ...lines.people.map((p) => ({
      audience: { kind: 'person', id: p.handle } as const,
      name: p.name,
      detail: [p.detail, p.address].filter(Boolean).join(' · '),
      note: p.role ? tp('roleTag') : '',
      group: p.near ? near : t('others'),
      outside: false,
    })),
    ...lines.groups.map((g) => ({
      audience: { kind: 'group', id: g.key } as const,
      name: g.name,
      detail: String(g.members),
      note: t('groupOf', { count: g.members }),
      group: t('groupsHead'),
      outside: false,
    })),
  ];
  const link: Option = {
    audience: { kind: 'newLink', name: '' },
    name: t('makeLink'),
    detail: '',
    note: t('makeLinkHelp'),
    group: t('outsideHead'),
    outside: true,
  };
  return (
    <Autocomplete
      className="field-5"
      openOnFocus
      autoHighlight
      options={options}
      getOptionLabel={(o) => o.name}
      getOptionKey={(o) => audienceParam(o.audience)}
      groupBy={(o) => o.group}
      filterOptions={(list, { inputValue }) => {
        const found = list.filter((o) => holdsWords(`${o.name} ${o.detail}`, inputValue)).slice(0, SHOWN);
        const typed = readTyped(inputValue);
        const known = typed && lines.people.some((p) => p.address === typed.address);
        const listed = typed && listedAt(lines.rows, typed.address);
        const outside: Option[] = listed
          ? [
              {
                audience: listed.audience,
                name: listed.who.name,
                detail: listed.who.detail,
                note: '',
                group: t('outsideHead'),
                outside: true,
              },
            ]
          : typed && !known
            ? [
                {
                  audience: { kind: 'address', address: typed.address, ...(typed.name ? { name: typed.name } : {}) },
                  name: typed.name || typed.address,
                  detail: typed.address,
                  note: t('giveAddress', { address: typed.address }),
                  group: t('outsideHead'),
                  outside: true,
                },
              ]
            : [];
        return [...found, ...outside, link];
      }}
      onChange={(_, o) => {
        if (o) onPick(o.audience.kind === 'newLink' ? { ...o, name: '' } : o);
      }}
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
      renderOption={({ key, ...p }, o) => (
        <li key={key} {...p} className="block">
          {o.name}
          <span className="small soft block">
            {[o.audience.kind === 'person' ? o.detail : null, o.note].filter(Boolean).join(' · ')}
          </span>
        </li>
      )}
      renderInput={(params) => <TextField {...params} autoFocus label={t('pick')} placeholder={t('pickHelp')} />}
    />
  );
}
