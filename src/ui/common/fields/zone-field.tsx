'use client';
import Autocomplete, { createFilterOptions } from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { zonePlace } from '../times.ts';

const few = createFilterOptions<string>({ limit: 30 });
let zones: readonly string[] | null = null;

/** A time zone, typed or chosen; whether it is one is for the server to say. */
export function ZoneField(props: {
  label: string;
  value: string;
  wrong: string | undefined;
  help?: string;
  onChange: (zone: string) => void;
}) {
  const { label, value, wrong, help, onChange } = props;
  zones ??= Intl.supportedValuesOf('timeZone');
  return (
    <Autocomplete
      freeSolo
      options={zones}
      filterOptions={few}
      value={value}
      inputValue={value}
      onInputChange={(_, zone) => onChange(zone)}
      renderOption={({ key, ...p }, zone) => (
        <li key={key} {...p}>
          {zonePlace(zone)} <span className="soft small">&nbsp;{zone}</span>
        </li>
      )}
      renderInput={(params) => <TextField {...params} label={label} error={!!wrong} helperText={wrong ?? help} />}
    />
  );
}
