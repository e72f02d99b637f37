'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import peopleCss from './people.module.css';

/** How long it takes between the organisation's places: read by everybody inside, kept as a table by an administrator. */
export function Journeys() {
  const t = useTranslations();
  const tj = useTranslations('journeys');
  const { frame, toast } = useFrame();
  const client = useQueryClient();
  const query = useQuery({
    queryKey: KEYS.journeys,
    queryFn: () => call('listJourneys', {}),
    enabled: frame.me.inside,
    retry: false,
  });
  const file = useRef<HTMLInputElement>(null);
  const [text, setText] = useState<string | null>(null);
  const [lines, setLines] = useState<readonly string[]>([]);
  const { attempt, refused, clear } = useActing();
  const wrong = refused ? [refused] : lines;
  const data = query.data;
  if (!frame.me.inside) return null;
  const save = () =>
    attempt(async () => {
      setLines([]);
      const read = await call('bringInJourneys', { body: { text: text ?? '', apply: true } });
      if (!read.applied) {
        setLines(read.wrong.map((w) => tj(`wrong.${w.why}`, { line: w.line })));
        return;
      }
      setText(null);
      toast({ text: tj('saved', { count: read.journeys.length }) });
      await client.invalidateQueries({ queryKey: KEYS.journeys });
    });
  const standing = (data?.journeys ?? []).map(([a, b, m]) => `${a}, ${b}, ${m}`).join('\n');
  return (
    <section className="page-narrow gap-5 above-8 stack">
      <h2>{tj('title')}</h2>
      <p className="small soft">{tj('help')}</p>
      <QueryState query={query} />
      {data && data.journeys.length === 0 && text === null && <p className="soft">{tj('none')}</p>}
      {data && data.journeys.length > 0 && text === null && (
        <table>
          <tbody>
            {data.journeys.map(([a, b, m]) => (
              <tr key={`${a} ${b}`}>
                <td className={peopleCss.cell}>{a}</td>
                <td className={peopleCss.cell}>{b}</td>
                <td className="right">{tj('minutes', { count: m })}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {text !== null && (
        <TextField
          multiline
          minRows={6}
          maxRows={16}
          label={tj('table')}
          value={text}
          onChange={(e) => setText(e.target.value)}
          helperText={tj('tableHelp')}
          slotProps={{ inputLabel: { shrink: true }, htmlInput: { style: { fontFamily: 'ui-monospace, monospace' } } }}
        />
      )}
      {wrong.length > 0 && (
        <Alert severity="error">
          {wrong.slice(0, 8).map((w) => (
            <span key={w} className="block">
              {w}
            </span>
          ))}
        </Alert>
      )}
      {data?.mayChange && (
        <span className="row">
          {text === null ? (
            <>
              <Button variant="outlined" onClick={() => setText(standing)}>
                {tj('change')}
              </Button>
              <Button variant="outlined" onClick={() => file.current?.click()}>
                {tj('bringIn')}
              </Button>
              <input
                ref={file}
                type="file"
                accept=".csv,text/csv,text/plain"
                hidden
                onChange={async (e) => {
                  const chosen = e.target.files?.[0];
                  e.target.value = '';
                  if (chosen) setText((await chosen.text()).slice(0, 400_000));
                }}
              />
              <Button variant="text" component="a" href="/api/journeys/file" download>
                {tj('takeOut')}
              </Button>
            </>
          ) : (
            <>
              <Button variant="contained" onClick={() => void save()}>
                {tj('save')}
              </Button>
              <Button
                variant="outlined"
                onClick={() => {
                  setText(null);
                  setLines([]);
                  clear();
                }}
              >
                {t('form.cancel')}
              </Button>
            </>
          )}
        </span>
      )}
    </section>
  );
}
