import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { PersonWire } from '@/contract/people/people.ts';
import type { TaskListWire, TaskWire } from '@/contract/tasks.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { fewPeople, personOption } from '../common/fields/people-options.tsx';

/** To whom a task is given to do: chosen from the directory, and what they said. */
export function GiveTask(props: {
  task: TaskWire;
  list: TaskListWire;
  error: string | undefined;
  onGive: (to: string | null, name: string) => void;
}) {
  const { task, list, error, onGive } = props;
  const t = useTranslations('tasks');
  const directory = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}), staleTime: 60_000 });
  const people = (directory.data?.people ?? []).filter((p) => p.handle !== list.owner.handle && p.resource === null);
  const given = task.given;
  return (
    <div>
      {given && (
        <p className={given.state === 'no' ? 'wrong' : ''}>
          {t(`givenLong.${given.state}`, { name: given.to.name })} {given.note && <span>“{given.note}”</span>}{' '}
          <Button variant="text" onClick={() => onGive(null, '')}>
            {t('takeBack')}
          </Button>
        </p>
      )}
      {(!given || given.state === 'no') && (
        <Autocomplete<PersonWire>
          size="small"
          options={people}
          value={null}
          getOptionLabel={(p) => p.name}
          getOptionKey={(p) => p.handle}
          filterOptions={fewPeople}
          renderOption={personOption}
          onChange={(_, person) => person && onGive(person.handle, person.name)}
          renderInput={(params) => (
            <TextField {...params} label={t('giveTo')} error={!!error} helperText={error ?? t('giveHelp')} />
          )}
        />
      )}
    </div>
  );
}
