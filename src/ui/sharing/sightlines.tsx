'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { CallRefused, call } from '@/contract/call.ts';
import type { SightlineRow } from '@/contract/sharing/sharing.ts';
import { useCollectionName } from '../common/collection-name.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { OF_KIND } from '../common/of-kind.ts';
import pageCss from '../common/page.module.css';
import { NOTHING } from '../common/requests/plain-rights.ts';
import { firstName } from '../common/token.tsx';
import { audienceParam } from './audience-param.ts';
import { BeginCalendar } from './begin/begin-calendar.tsx';
import { Layers } from './begin/layers.tsx';
import { type Picked, Picker } from './begin/picker.tsx';
import { Editor } from './grants/editor.tsx';
import type { Undo } from './grants/undo-grant.ts';
import { MoreMenu } from './more-menu.tsx';
import { Findings } from './review/findings.tsx';
import { Several } from './several/several.tsx';
import sightlinesCss from './sightlines.module.css';
import { Told } from './told.tsx';
import { WhoList } from './who-list.tsx';

/** Who sees what in a calendar and who may do what; what each gets stands beside the choice. */
export function Sightlines({ calendar }: { calendar: string }) {
  const t = useTranslations('lines');
  const nameOfCollection = useCollectionName();
  const tb = useTranslations('board');
  const { frame, toast } = useFrame();
  const client = useQueryClient();
  const router = useRouter();
  const search = useSearchParams();
  // A door from elsewhere leads straight to a row, or to somebody who has none yet.
  const [chosen, setChosen] = useState(search.get('who') ?? 'everyone');
  // A door within the page leads to a row too: to what was typed there and not saved.
  const door = search.toString();
  useEffect(() => {
    const who = new URLSearchParams(door).get('who');
    if (who) setChosen(who);
  }, [door]);
  const [added, setAdded] = useState<readonly Picked[]>([]);
  const [picking, setPicking] = useState<'one' | 'several' | 'layers' | 'calendar' | null>(
    search.get('give') === '1' ? 'one' : null,
  );
  const { attempt, refused } = useActing();
  const query = useQuery({
    queryKey: KEYS.calendar(calendar, 'sightlines'),
    queryFn: () => call('listSightlines', { params: { calendar } }),
    retry: false,
  });
  if (query.isPending)
    return (
      <p className={`${pageCss.state} soft`} role="status">
        {t('loading')}
      </p>
    );
  if (query.isError) {
    return (
      <div className={pageCss.state} role="alert">
        <p>{query.error instanceof CallRefused ? query.error.message : t('failed')}</p>
        <Button variant="outlined" onClick={() => void query.refetch()}>
          {tb('again')}
        </Button>
      </div>
    );
  }
  const lines = query.data;
  const byDoor = lines.people.find((p) => `person:${p.handle}` === search.get('who'));
  const wanted: Picked[] = byDoor
    ? [{ audience: { kind: 'person', id: byDoor.handle }, name: byDoor.name, detail: byDoor.detail, outside: false }]
    : [];
  const fresh = [...added, ...wanted].filter(
    (a, i, all) =>
      !lines.rows.some((r) => audienceParam(r.audience) === audienceParam(a.audience)) &&
      all.findIndex((b) => audienceParam(b.audience) === audienceParam(a.audience)) === i,
  );
  const rows = [...lines.rows, ...fresh.map(draftRow)];
  const everyone = lines.rows.find((r) => r.audience.kind === 'everyone');
  const everyoneRow = everyone ?? draftRow({ audience: { kind: 'everyone' }, name: '', detail: '', outside: false });
  const current = rows.find((r) => audienceParam(r.audience) === chosen) ?? everyoneRow;
  const owner = firstName(lines.owner.name);
  const nameOf = (row: SightlineRow) => (row.audience.kind === 'everyone' ? t('everyoneInside') : row.who.name);
  const saved = async (text: string, undo?: Undo) => {
    const back = async (take: Undo) => {
      await attempt(async () => {
        await take();
        toast({ text: t('undone') });
      });
      await client.invalidateQueries({ queryKey: KEYS.calendar(calendar) });
    };
    toast({ text, ...(undo ? { undo: () => void back(undo) } : {}) });
    await client.invalidateQueries({ queryKey: KEYS.calendar(calendar) });
  };
  const suspend = (suspended: boolean) =>
    attempt(async () => {
      await call('suspendSharing', { params: { calendar }, body: { suspended } });
      await saved(suspended ? t('suspendedDone') : t('resumed'));
    });
  const here = lines.owner.handle;
  const acted = frame.principals.some((p) => p.handle === here);
  const goTo = (key: string, main: boolean) => {
    const to = new URLSearchParams({ ...(acted ? {} : { of: here }), ...(main ? {} : { c: key }) });
    router.push(`/for/${acted ? here : frame.me.handle}/sightlines?${to}`);
  };
  const toggle = (what: typeof picking) => setPicking(picking === what ? null : what);
  const isCalendar = lines.calendar.kind === 'calendar';
  const several = picking === 'several' || picking === 'layers' || picking === 'calendar';
  return (
    <div className={sightlinesCss.sightlines}>
      <header>
        <div>
          <h1>
            {lines.calendar.kind !== 'calendar'
              ? t(`title${OF_KIND[lines.calendar.kind]}` as 'titleTasks', {
                  folder: nameOfCollection('folder', lines.calendar.name),
                  own: String(lines.own),
                  name: lines.owner.name,
                })
              : lines.own
                ? t('titleMine')
                : t('title', { name: lines.owner.name })}
          </h1>
          <span className="small soft">
            {t('summary', { people: lines.rows.filter((r) => r.audience.kind !== 'everyone').length })}
          </span>
        </div>
        {lines.others.length > 0 && (
          <TextField
            select
            label={t('calendars')}
            value={lines.calendar.key}
            fullWidth={false}
            className="field-3"
            onChange={(e) => {
              const other = lines.others.find((c) => c.key === e.target.value);
              if (other) goTo(other.key, other.main);
            }}
          >
            {[lines.calendar, ...lines.others].map((c) => (
              <MenuItem key={c.key} value={c.key}>
                {c.main ? t('mainCalendar') : nameOfCollection(c.kind, c.name)}
              </MenuItem>
            ))}
          </TextField>
        )}
        <div className={sightlinesCss.push}>
          {picking === 'one' ? (
            <Picker
              lines={lines}
              onPick={(picked) => {
                setAdded((list) => [...list, picked]);
                setChosen(audienceParam(picked.audience));
                setPicking(null);
              }}
              onClose={() => setPicking(null)}
            />
          ) : (
            <>
              {lines.own && lines.calendar.main && <Link href={`/for/${here}/granted`}>{t('mine')}</Link>}
              <MoreMenu
                lines={lines}
                onLayers={() => toggle('layers')}
                onCalendar={() => toggle('calendar')}
                onSuspend={() => void suspend(!lines.suspended)}
              />
              <Button variant="outlined" aria-pressed={picking === 'several'} onClick={() => toggle('several')}>
                {t('several')}
              </Button>
              <Button variant="contained" onClick={() => setPicking('one')}>
                {t('give')}
              </Button>
            </>
          )}
        </div>
      </header>
      <div className={`${sightlinesCss.col} ${sightlinesCss['who-list']}`}>
        {refused && <Alert severity="error">{refused}</Alert>}
        {lines.asAdministrator && (
          <Alert severity="info" role="status">
            {t('asAdministrator', { owner: lines.owner.name })}
          </Alert>
        )}
        {lines.suspended && (
          <Alert
            severity="warning"
            role="status"
            action={lines.own && <Button onClick={() => void suspend(false)}>{t('resume')}</Button>}
          >
            {t('suspended', { owner })}
          </Alert>
        )}
        {!several && isCalendar && lines.rows.length < 2 && !lines.asAdministrator && (
          <section className={`${pageCss.card} below-6`} aria-label={t('layers')}>
            <p className="small">{t('layersHelp')}</p>
            <Button variant="outlined" className="above-4" onClick={() => setPicking('layers')}>
              {t('layers')}
            </Button>
          </section>
        )}
        {!several && isCalendar && <Findings calendar={calendar} rows={lines.rows} onMended={saved} />}
        {picking === 'several' && (
          <Several calendar={calendar} lines={lines} onDone={saved} onClose={() => setPicking(null)} />
        )}
        {picking === 'layers' && (
          <Layers calendar={calendar} lines={lines} onDone={(text) => saved(text)} onClose={() => setPicking(null)} />
        )}
        {picking === 'calendar' && (
          <BeginCalendar
            of={here}
            onAdded={(key, name) => {
              setPicking(null);
              toast({ text: t('calendarBegun', { name, sight: 'other' }) });
              void client.invalidateQueries({ queryKey: KEYS.calendars });
              goTo(key, false);
            }}
            onClose={() => setPicking(null)}
          />
        )}
        {!several && !lines.asAdministrator && (
          <Told calendar={calendar} lines={lines} onSaved={(text) => saved(text)} />
        )}
        <WhoList
          rows={rows}
          everyone={everyoneRow}
          current={current}
          own={lines.own}
          kind={lines.calendar.kind}
          owner={owner}
          ownerName={lines.owner.name}
          calendar={calendar}
          onChanged={saved}
          onChoose={(row) => setChosen(audienceParam(row.audience))}
        />
      </div>
      <Editor
        key={audienceParam(current.audience)}
        calendar={calendar}
        row={current}
        lines={lines}
        name={nameOf(current)}
        onSaved={async (text, audience, undo) => {
          await saved(text, undo);
          // Somebody typed by address, and a new link, go by a name of their own from now on.
          const was = audienceParam(current.audience);
          if (!audience || audienceParam(audience) === was) return;
          setAdded((list) => list.filter((a) => audienceParam(a.audience) !== was));
          setChosen((now) => (now === was ? audienceParam(audience) : now));
        }}
        onGone={() => {
          setAdded((list) => list.filter((a) => audienceParam(a.audience) !== audienceParam(current.audience)));
          setChosen('everyone');
        }}
      />
    </div>
  );
}

/** A row for somebody who has no grant yet. */
function draftRow(a: Picked): SightlineRow {
  return {
    audience: a.audience,
    who: { name: a.name, detail: a.detail },
    outside: a.outside,
    role: false,
    link: null,
    shown: null,
    effective: NOTHING,
    cutBy: [],
    grants: [],
  };
}
