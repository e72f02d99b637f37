'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import { type ReactNode, useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { PeopleAnswer, PersonWire } from '@/contract/people/people.ts';
import { reachOf } from '@/contract/sharing/reach.ts';
import boardsCss from '../common/boards.module.css';
import { useComesNext } from '../common/comes-next.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { holdsWords } from '../common/fields/people-options.tsx';
import { PersonForm } from '../common/fields/person-form.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { ReachMeter, SightMeter } from '../common/meters.tsx';
import pageCss from '../common/page.module.css';
import { PhoneLink } from '../common/phone-link.tsx';
import { firstName, Token } from '../common/token.tsx';
import { DirectoryFile } from './directory-file.tsx';
import { Groups } from './groups.tsx';
import peopleCss from './people.module.css';
import { PersonFilePanel } from './person-file.tsx';
import { RoomForm } from './room-form.tsx';

const SHOWN = 300;
const KINDS = ['person', 'role', 'room', 'thing'] as const;

/** Of which kind somebody in the directory is: a person, an account several use, a room or a thing. */
const kindOf = (p: Pick<PersonWire, 'kind' | 'resource'>): (typeof KINDS)[number] => p.resource ?? p.kind;

/** The directory: who is here, what one sees of each calendar, and the way to look at it. */
export function People() {
  const t = useTranslations();
  const comesNext = useComesNext();
  const { frame, toast, requestAccess } = useFrame();
  // The address of asking somebody leads here: whom is chosen beside the directory.
  const wanted = useSearchParams().get('ask') !== null;
  useEffect(() => {
    if (wanted) requestAccess?.({ people: [] });
  }, [wanted, requestAccess]);
  const client = useQueryClient();
  const [filter, setFilter] = useState('');
  const [kind, setKind] = useState<(typeof KINDS)[number] | 'all'>('all');
  const [panel, setPanel] = useState<'add' | 'file' | { person: string } | null>(null);
  const query = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}) });
  const all = query.data?.people ?? [];
  const people = all.filter(
    (p) =>
      (kind === 'all' || kindOf(p) === kind) &&
      holdsWords(`${p.name} ${p.role} ${p.site} ${p.phone} ${p.address}`, filter),
  );
  const kinds = KINDS.filter((one) => all.some((p) => kindOf(p) === one));
  const acted = new Set(frame.principals.filter((p) => !p.own).map((p) => p.handle));
  return (
    <div className={peopleCss.beside}>
      <div className={pageCss.page}>
        <div className="row below-6">
          <h1>{t('people.title')}</h1>
          <span className="soft">{query.data && t('people.count', { count: all.length })}</span>
          <Link href={`/for/${frame.me.handle}/granted`}>{t('people.mine')}</Link>
          {kinds.length > 1 && (
            <TextField
              select
              label={t('people.ofKind')}
              value={kind}
              className="field-2 at-end"
              onChange={(e) => setKind(KINDS.find((one) => one === e.target.value) ?? 'all')}
            >
              {(['all', ...kinds] as const).map((one) => (
                <MenuItem key={one} value={one}>
                  {t(`people.kinds.${one}`)}
                </MenuItem>
              ))}
            </TextField>
          )}
          <TextField
            label={t('people.filter')}
            value={filter}
            onChange={(e) => setFilter(e.target.value)}
            className={kinds.length > 1 ? 'field-4' : 'field-4 at-end'}
          />
          {frame.me.administrator && (
            <>
              <Button variant="outlined" onClick={() => setPanel('file')}>
                {t('people.file')}
              </Button>
              <Button variant="outlined" onClick={() => setPanel('add')}>
                {t('people.add')}
              </Button>
            </>
          )}
        </div>
        <QueryState query={query} />
        {query.data && (
          <table className={peopleCss.list}>
            <thead>
              <tr>
                <th>{t('people.name')}</th>
                <th>{t('people.role')}</th>
                <th>{t('people.site')}</th>
                <th>{t('people.phone')}</th>
                <th>{t('people.youSee')}</th>
                <th>{t('people.youMay')}</th>
                <th>
                  <span className="visually-hidden">{t('people.open')}</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {people.slice(0, SHOWN).map((p) => (
                <tr key={p.handle}>
                  <td>
                    <span className="row">
                      <Token name={p.name} colour={p.colour} tiny /> {p.name}
                      {p.kind === 'role' && <span className="small soft">{t('people.roleTag')}</span>}
                      {p.resource && (
                        <span className="small soft">
                          {t('meetings.room', { kind: p.resource, place: 'undefined', size: p.size ?? 0 })}
                        </span>
                      )}
                    </span>
                  </td>
                  <td className="soft">{p.role}</td>
                  <td className={`soft ${peopleCss.whole}`}>{p.site}</td>
                  <td className={peopleCss.whole}>{p.phone && <PhoneLink phone={p.phone} />}</td>
                  <td>
                    <span className={`row ${peopleCss.level}`}>
                      <SightMeter sight={p.rights.sight} />
                      <span className="small soft">
                        {p.handle === frame.me.handle ? t('people.yours') : t(`sightWords.${p.rights.sight}`)}
                      </span>
                    </span>
                  </td>
                  <td>
                    {p.handle !== frame.me.handle && (p.rights.sight !== 'nothing' || p.next !== null) && (
                      <span className={`row ${peopleCss.level}`}>
                        <ReachMeter rights={p.rights} />
                        <span className="small soft">
                          {[
                            t(`reaches.${reachOf(p.rights)}`).toLowerCase(),
                            ...(['suggest', 'private', 'speaks', 'copies', 'shares', 'absence'] as const)
                              .filter((extra) => p.rights[extra])
                              .map((extra) => t(`people.held.${extra}`, { name: firstName(p.name) })),
                            t('people.through', { through: p.through }),
                            comesNext(p),
                          ]
                            .filter(Boolean)
                            .join(' · ')}
                        </span>
                      </span>
                    )}
                  </td>
                  <td>
                    <span className={`row small ${peopleCss.acts}`}>
                      {p.handle !== frame.me.handle &&
                        (acted.has(p.handle) ? (
                          <Link href={`/for/${p.handle}/calendar`}>{t('people.actFor')}</Link>
                        ) : (
                          p.rights.sight !== 'nothing' && (
                            <Link
                              href={`/for/${frame.me.handle}/calendar?of=${p.handle}`}
                              aria-label={`${t('people.open')}: ${p.name}`}
                            >
                              {t('people.open')}
                            </Link>
                          )
                        ))}
                      {p.handle !== frame.me.handle &&
                        p.further.map((c) => (
                          <Link key={c.key} href={`/for/${frame.me.handle}/calendar?of=${p.handle}&c=${c.key}`}>
                            {c.name}
                          </Link>
                        ))}
                      {p.lists.length > 0 && (
                        <Link href={`/for/${frame.me.handle}/everything?of=${p.handle}`}>{t('people.everything')}</Link>
                      )}
                      {p.handle !== frame.me.handle && requestAccess && (
                        <button
                          type="button"
                          className={`plain ${peopleCss['as-link']}`}
                          aria-label={t('ask.moreOf', { name: p.name })}
                          onClick={() => requestAccess({ people: [p], has: p.rights })}
                        >
                          {t('people.askShort')}
                        </button>
                      )}
                      {p.handle !== frame.me.handle && (
                        <Link
                          href={`/for/${frame.me.handle}/sightlines?who=person%3A${p.handle}`}
                          aria-label={t('people.giveTo', { name: p.name })}
                        >
                          {t('people.giveShort')}
                        </Link>
                      )}
                      {frame.me.administrator && (
                        <button
                          type="button"
                          className={`plain ${peopleCss['as-link']}`}
                          aria-label={t('people.editOf', { name: p.name })}
                          onClick={() => setPanel({ person: p.handle })}
                        >
                          {t('people.edit')}
                        </button>
                      )}
                    </span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {query.data && people.length === 0 && <p className="soft">{t('people.noneFound')}</p>}
        {query.data && query.data.outside.length > 0 && <Outside people={query.data.outside} />}
        {query.data && (
          <Groups
            people={[...all, ...query.data.outside.filter((p) => !p.left)]}
            seen={
              new Map(
                all.filter((p) => p.handle !== frame.me.handle).map((p) => [p.handle, p.rights.sight !== 'nothing']),
              )
            }
          />
        )}
      </div>
      {panel === 'add' && (
        <Panel title={t('people.add')} onClose={() => setPanel(null)}>
          <PersonForm
            first={false}
            onSend={(values) => call('addPerson', { body: values })}
            onSent={(values) => {
              toast({ text: t('people.added', { name: values.name }) });
              void client.invalidateQueries({ queryKey: KEYS.people });
            }}
          />
          <h3 className="above-7">{t('rooms.title')}</h3>
          <p className="small soft">{t('rooms.help')}</p>
          <RoomForm
            onAdded={(name) => {
              toast({ text: t('rooms.added', { name }) });
              void client.invalidateQueries({ queryKey: KEYS.people });
            }}
          />
        </Panel>
      )}
      {panel === 'file' && (
        <Panel title={t('people.file')} onClose={() => setPanel(null)}>
          <DirectoryFile />
        </Panel>
      )}
      {panel !== null && typeof panel === 'object' && (
        <Panel
          title={all.find((p) => p.handle === panel.person)?.name ?? t('people.somebody')}
          onClose={() => setPanel(null)}
        >
          <PersonFilePanel key={panel.person} handle={panel.person} people={all} onLeft={() => setPanel(null)} />
        </Panel>
      )}
    </div>
  );
}

/** Those outside who were given something, and those who left: for an administrator, who keeps an eye on both. */
function Outside({ people }: { people: PeopleAnswer['outside'] }) {
  const t = useTranslations('people');
  return (
    <section aria-label={t('outside')} className="above-8">
      <h2>{t('outside')}</h2>
      <table className={peopleCss.list}>
        <tbody>
          {people.map((p) => (
            <tr key={p.handle}>
              <td>{p.name}</td>
              <td className="soft">{p.address}</td>
              <td className="soft">{p.left ? t('outsideLeft') : t('outsideGrants', { count: p.grants })}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Panel({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
  const t = useTranslations('panel');
  return (
    <aside className={boardsCss.panel} aria-label={title}>
      <div className={boardsCss.for}>
        <span>{title}</span>
        <Button variant="text" className="low" onClick={onClose}>
          {t('close')}
        </Button>
      </div>
      {children}
    </aside>
  );
}
