'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { Asked } from '../common/asked.tsx';
import { ReachMeter, reachOf, SightMeter } from '../common/meters.tsx';
import { PersonForm } from '../common/person-form.tsx';
import { dayMonth } from '../common/times.ts';
import { Token } from '../common/token.tsx';
import { useFrame } from '../frame/frame-context.tsx';
import { Groups } from './groups.tsx';

const SHOWN = 300;

/** The directory: who is here, what one sees of each calendar, and the way to look at it. */
export function People() {
  const t = useTranslations();
  const { frame, toast } = useFrame();
  const client = useQueryClient();
  const [filter, setFilter] = useState('');
  const [adding, setAdding] = useState(false);
  const query = useQuery({ queryKey: ['people'], queryFn: () => call('listPeople', {}) });
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  const all = query.data?.people ?? [];
  const people = all.filter((p) =>
    words.every((w) => `${p.name} ${p.role} ${p.site} ${p.address}`.toLowerCase().includes(w)),
  );
  const acted = new Set(frame.principals.filter((p) => !p.own).map((p) => p.handle));
  return (
    <div className="board">
      <div className="page">
        <div className="row" style={{ marginBottom: 12 }}>
          <h1>{t('people.title')}</h1>
          <span className="soft">{query.data && t('people.count', { count: all.length })}</span>
          <TextField
            label={t('people.filter')}
            value={filter}
            onChange={(e) => setFilter(e.target.value)}
            sx={{ width: 260, ml: 'auto' }}
          />
          {frame.me.administrator && (
            <Button variant="outlined" onClick={() => setAdding(true)}>
              {t('people.add')}
            </Button>
          )}
        </div>
        <Asked query={query} />
        {query.data && (
          <table className="list">
            <thead>
              <tr>
                <th>{t('people.name')}</th>
                <th>{t('people.role')}</th>
                <th>{t('people.site')}</th>
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
                    </span>
                  </td>
                  <td className="soft">{p.role}</td>
                  <td className="soft">{p.site}</td>
                  <td>
                    <span className="row">
                      <SightMeter sight={p.rights.sight} />
                      <span className="small soft">
                        {p.handle === frame.me.handle ? t('people.yours') : t(`sightWords.${p.rights.sight}`)}
                      </span>
                    </span>
                  </td>
                  <td>
                    {p.handle !== frame.me.handle && p.rights.sight !== 'nothing' && (
                      <span className="row">
                        <ReachMeter rights={p.rights} />
                        <span className="small soft">
                          {[
                            t(`reaches.${reachOf(p.rights)}`).toLowerCase(),
                            ...(['suggest', 'private', 'speaks', 'shares'] as const)
                              .filter((extra) => p.rights[extra])
                              .map((extra) => t(`extras.${extra}`).toLowerCase()),
                            t('people.through', { through: p.through }),
                            p.until
                              ? t('people.until', {
                                  date: dayMonth(toWall(frame.me.zone, (parseInstant(p.until) ?? 0) - 1)),
                                })
                              : null,
                          ]
                            .filter(Boolean)
                            .join(' · ')}
                        </span>
                      </span>
                    )}
                  </td>
                  <td>
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
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {query.data && people.length === 0 && <p className="soft">{t('people.noneFound')}</p>}
        {query.data && <Groups people={all} />}
      </div>
      {adding && (
        <aside className="panel" aria-label={t('people.add')}>
          <div className="for">
            <span>{t('people.add')}</span>
            <Button variant="text" sx={{ minHeight: 0 }} onClick={() => setAdding(false)}>
              {t('panel.close')}
            </Button>
          </div>
          <PersonForm
            first={false}
            onSend={(values) => call('addPerson', { body: values })}
            onSent={(values) => {
              toast({ text: t('people.added', { name: values.name }) });
              void client.invalidateQueries({ queryKey: ['people'] });
            }}
          />
        </aside>
      )}
    </div>
  );
}
