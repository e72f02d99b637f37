'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { type ReactNode, useMemo, useState } from 'react';
import { SIGHTS } from '@/core/calendar/index.ts';
import boardsCss from '@/ui/common/boards.module.css';
import { DateField } from '@/ui/common/fields/date-field.tsx';
import { LevelChoice } from '@/ui/common/fields/level-choice.tsx';
import { TimeField } from '@/ui/common/fields/time-field.tsx';
import { FrameProvider } from '@/ui/common/frame-context.tsx';
import { ReachMeter, SightMeter } from '@/ui/common/meters.tsx';
import pageCss from '@/ui/common/page.module.css';
import { NOTHING } from '@/ui/common/requests/plain-rights.ts';
import { strangersFrame } from '@/ui/common/strangers-frame.ts';
import { Token } from '@/ui/common/token.tsx';
import blockCss from '@/ui/items/views/block.module.css';
import partsCss from './parts.module.css';

const SHAPES = [
  'busy',
  'tentative',
  'away',
  'reachable',
  'free',
  'hold',
  'withheld',
  'clash',
  'cancelled',
  'selected',
  'picked',
];
const LEVELS = SIGHTS.map((value) => ({ value, word: value, help: 'what it means' }));
const REACHES = [
  NOTHING,
  { ...NOTHING, suggest: true },
  { ...NOTHING, add: true, change: 'own', remove: 'own' },
  { ...NOTHING, add: true, change: 'all', remove: 'own' },
  { ...NOTHING, add: true, change: 'all', remove: 'all' },
] as const;

/** All of them, once by day and once by night. */
export function Parts() {
  const state = useMemo(() => strangersFrame('Europe/Lisbon', 'en', Date.now), []);
  return (
    <FrameProvider value={state}>
      <div className={partsCss.both}>
        {(['light', 'dark'] as const).map((theme) => (
          <main key={theme} data-theme={theme} className={`${partsCss.one} who-0`}>
            <h1>{theme}</h1>
            <All theme={theme} />
          </main>
        ))}
      </div>
    </FrameProvider>
  );
}

function Part({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section aria-label={name}>
      <h2>{name}</h2>
      <div className={partsCss.row}>{children}</div>
    </section>
  );
}

function All({ theme }: { theme: string }) {
  const [sight, setSight] = useState('outline');
  const [date, setDate] = useState('2027-03-02');
  const [time, setTime] = useState('09:00');
  return (
    <>
      <Part name="Buttons">
        {(['contained', 'outlined', 'text'] as const).map((variant) => (
          <span key={variant} className={partsCss.row}>
            <Button variant={variant}>Save</Button>
            <Button variant={variant} disabled>
              Save
            </Button>
            <Button variant={variant} loading>
              Save
            </Button>
          </span>
        ))}
        <Button variant="contained" color="error">
          Say no
        </Button>
        <kbd>N</kbd>
      </Part>
      <Part name="Fields">
        <TextField label="Empty" slotProps={{ inputLabel: { shrink: true } }} />
        <TextField label="With help" value="Ridge House" helperText="Where it is." onChange={() => {}} />
        <TextField
          label="Wrong"
          value="nora at weir"
          error
          helperText="This is no e-mail address."
          onChange={() => {}}
        />
        <TextField label="Closed" value="Bruno Keane" disabled />
        <TextField select label="One of several" value="b" onChange={() => {}}>
          <MenuItem value="a">Titles</MenuItem>
          <MenuItem value="b">Outline</MenuItem>
        </TextField>
        <DateField label="A date" value={date} error={undefined} onChange={setDate} />
        <DateField label="A wrong date" value="31/31" error="This is no date." onChange={() => {}} />
        <TimeField label="A time" value={time} error={undefined} onChange={setTime} />
        <TimeField label="A wrong time" value="noon" error="This is no time." onChange={() => {}} />
      </Part>
      <Part name="Choices">
        <LevelChoice
          id={`sight-${theme}`}
          label="Sees"
          as="sight"
          value={sight}
          levels={LEVELS.map((level, i) => ({
            ...level,
            ...(i === 4 ? { barred: true, why: 'A house rule bars it.' } : {}),
          }))}
          onPick={setSight}
        />
        <FormControlLabel label="On" control={<Switch size="small" defaultChecked />} />
        <FormControlLabel label="Off" control={<Switch size="small" />} />
        <FormControlLabel label="Closed" disabled control={<Switch size="small" />} />
        <FormControlLabel label="Ticked" control={<Checkbox size="small" defaultChecked />} />
        <FormControlLabel label="Not ticked" control={<Checkbox size="small" />} />
      </Part>
      <Part name="Meters">
        {SIGHTS.map((one) => (
          <SightMeter key={one} sight={one} />
        ))}
        {REACHES.map((rights, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: they stay as they are
          <ReachMeter key={i} rights={rights} />
        ))}
      </Part>
      <Part name="People">
        {[0, 1, 2, 3, 4, 5].map((colour) => (
          <span key={colour} className={partsCss.row}>
            <Token name="Inés Varga" colour={colour} />
            <Token name="Bruno Keane" colour={colour} tiny />
          </span>
        ))}
      </Part>
      <Part name="Blocks">
        {SHAPES.map((shape) => (
          <div key={shape} className={`${blockCss.block} ${partsCss.block} ${blockCss[shape] ?? ''}`}>
            <span className={blockCss.t}>{shape}</span>
            <span className={blockCss.p}>Ridge House</span>
          </div>
        ))}
      </Part>
      <Part name="What is said">
        <p className={boardsCss.notice} role="status">
          Something that is to be known, with a way on.
        </p>
        <Alert severity="error">What was refused, in a sentence.</Alert>
        <Alert severity="warning">What is to be looked at.</Alert>
        <p className="small soft">Said softly.</p>
        <p className="wrong">Said as wrong.</p>
        <div className={pageCss.card}>A card.</div>
        <div className={`${pageCss.card} ${pageCss.briefing}`}>A briefing.</div>
        <span className={pageCss.tag}>
          a mark{' '}
          <button type="button" className="plain" aria-label="Remove">
            ×
          </button>
        </span>
      </Part>
    </>
  );
}
