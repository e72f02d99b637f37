'use client';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Slider from '@mui/material/Slider';
import TextField from '@mui/material/TextField';
import { useTranslations } from 'use-intl';
import { MOST_SERIES_WEEKS } from '@/contract/mosts.ts';
import { DateField } from '../../common/fields/date-field.tsx';
import { type TimesRequest, WISHES } from './times-request.ts';

const LENGTHS = [15, 30, 45, 60, 90, 120, 180] as const;
const SPANS = [1, 5, 7, 14, 28, 56] as const;
const PADDINGS = [0, 5, 10, 15, 30, 45, 60] as const;
const TIMES = [2, 4, 6, 8, 10, 12, 26] as const;

interface Fields {
  readonly request: TimesRequest;
  readonly onChange: (change: Partial<TimesRequest>) => void;
}

/** A list of numbers to choose from, with the one that stands among them wherever it comes from. */
function OneNumber(props: {
  label: string;
  value: number;
  among: readonly number[];
  word: (n: number) => string;
  onChange: (n: number) => void;
}) {
  const { label, value, among, word, onChange } = props;
  const all = among.includes(value) ? among : [...among, value].sort((a, b) => a - b);
  return (
    <TextField select label={label} value={value} onChange={(e) => onChange(Number(e.target.value))}>
      {all.map((n) => (
        <MenuItem key={n} value={n}>
          {word(n)}
        </MenuItem>
      ))}
    </TextField>
  );
}

function Tick({ label, is, onChange }: { label: string; is: boolean; onChange: (is: boolean) => void }) {
  return (
    <FormControlLabel
      control={<Checkbox size="small" checked={is} onChange={(e) => onChange(e.target.checked)} />}
      label={label}
      slotProps={{ typography: { variant: 'body2' } }}
    />
  );
}

/** How long it takes, and, unless `bare`, what is kept free before and after it. */
export function LengthFields({ request, onChange, bare = false }: Fields & { bare?: boolean }) {
  const t = useTranslations('openings');
  return (
    <>
      <OneNumber
        label={t('length')}
        value={request.length}
        among={LENGTHS}
        word={(count) => t('minutes', { count })}
        onChange={(length) => onChange({ length })}
      />
      {!bare && (
        <OneNumber
          label={t('padding')}
          value={request.padding}
          among={PADDINGS}
          word={(count) => t('paddingOf', { count })}
          onChange={(padding) => onChange({ padding })}
        />
      )}
    </>
  );
}

/** From which day on, for how long, and, unless it is `once`, how often. */
export function WhenFields({ request, onChange, once = false }: Fields & { once?: boolean }) {
  const t = useTranslations('openings');
  const { series } = request;
  return (
    <>
      <DateField
        label={t('from')}
        value={request.from}
        error={undefined}
        onChange={(from) => /^\d{4}-\d{2}-\d{2}$/.test(from) && onChange({ from })}
      />
      <OneNumber
        label={t('within')}
        value={request.days}
        among={SPANS}
        word={(count) => t('days', { count })}
        onChange={(days) => onChange({ days })}
      />
      {!once && (
        <TextField
          select
          label={t('often')}
          value={series?.every ?? 0}
          onChange={(e) => {
            const every = Number(e.target.value);
            const times = Math.min(series?.times ?? 6, Math.floor(MOST_SERIES_WEEKS / Math.max(1, every)));
            onChange({ series: every === 0 ? null : { every, times } });
          }}
        >
          {[0, 1, 2, 4].map((every) => (
            <MenuItem key={every} value={every}>
              {t('every', { every })}
            </MenuItem>
          ))}
        </TextField>
      )}
      {series && !once && (
        <OneNumber
          label={t('times')}
          value={series.times}
          among={TIMES.filter((n) => n * series.every <= MOST_SERIES_WEEKS)}
          word={(count) => t('timesOf', { count })}
          onChange={(times) => onChange({ series: { ...series, times } })}
        />
      )}
    </>
  );
}

/** Where it is, whether whose calendar it is has to be there by their whereabouts, and a room. `whom` is their first name, empty for oneself. */
export function WhereFields({ request, onChange, whom }: Fields & { whom: string }) {
  const t = useTranslations('openings');
  return (
    <>
      <TextField
        label={t('place')}
        value={request.place}
        onChange={(e) => onChange({ place: e.target.value })}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 300 } }}
      />
      {request.place.trim() !== '' && (
        <Tick
          label={t('there', { name: whom, own: whom === '' ? 'yes' : 'no' })}
          is={request.there}
          onChange={(there) => onChange({ there })}
        />
      )}
      <Tick
        label={t('anyRoom')}
        is={request.seats !== null}
        onChange={(is) => onChange(is ? { seats: Math.max(2, request.people.length + 1) } : { seats: null, site: '' })}
      />
      {request.seats !== null && (
        <span className="row">
          <TextField
            type="number"
            label={t('seats')}
            value={request.seats}
            onChange={(e) => {
              const seats = Math.floor(Number(e.target.value));
              if (seats >= 1 && seats <= 100_000) onChange({ seats });
            }}
            slotProps={{ htmlInput: { min: 1, max: 100_000 } }}
          />
          <TextField
            label={t('site')}
            value={request.site}
            onChange={(e) => onChange({ site: e.target.value })}
            slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 300 } }}
          />
        </span>
      )}
    </>
  );
}

/** What may be reached over: working hours, and what is tentative. */
export function HowFields({ request, onChange }: Fields) {
  const t = useTranslations('openings');
  return (
    <span className="stack">
      <Tick label={t('anyTime')} is={request.anyTime} onChange={(anyTime) => onChange({ anyTime })} />
      <Tick label={t('over')} is={request.over} onChange={(over) => onChange({ over })} />
    </span>
  );
}

/** Three wishes, each turned down, as usual, or up. */
export function WishFields({ request, onChange }: Fields) {
  const t = useTranslations('openings');
  return (
    <fieldset className="stack thirds gap-6 bottom bare" aria-label={t('wishes')}>
      {WISHES.map((wish) => (
        <div key={wish} className="small soft">
          {t(`wish.${wish}`)}
          <Slider
            size="small"
            min={-1}
            max={1}
            step={1}
            value={request.wishes[wish]}
            aria-label={t(`wish.${wish}`)}
            getAriaValueText={(value) => t('turned', { by: value > 0 ? 'up' : value < 0 ? 'down' : 'as' })}
            onChange={(_, value) => onChange({ wishes: { ...request.wishes, [wish]: value as -1 | 0 | 1 } })}
          />
        </div>
      ))}
    </fieldset>
  );
}
