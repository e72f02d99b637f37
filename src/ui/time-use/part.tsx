'use client';
import { useMemo } from 'react';
import { useTranslations } from 'use-intl';
import { later } from '../common/later.tsx';
import timeUseCss from './time-use.module.css';

const TimeChart = later(() => import('./time-chart.tsx').then((m) => m.TimeChart));

/** One thing that time went to: minutes of each period, and what share of all is wished for, in percent. */
export interface PartRow {
  readonly key: string;
  readonly name: string;
  readonly minutes: readonly number[];
  readonly wished: number | null;
}

/** Minutes as hours, to a tenth. */
export const hoursOf = (minutes: number): number => Math.round(minutes / 6) / 10;
const percentOf = (minutes: number, total: number): number => (total === 0 ? 0 : Math.round((minutes / total) * 100));

/** A chart, and the table that says the same. */
export function Part(props: {
  title: string;
  /** What each period is called. */
  names: readonly string[];
  /** Minutes taken at all in each. */
  totals: readonly number[];
  rows: readonly PartRow[];
  standing?: boolean;
}) {
  const { title, names, totals, rows, standing = false } = props;
  const t = useTranslations('timeUse');
  const series = useMemo(
    () => names.map((name, i) => ({ name, hours: rows.map(({ minutes }) => hoursOf(minutes[i] ?? 0)) })),
    [names, rows],
  );
  const wished = useMemo(
    () => rows.map(({ wished: percent }) => (percent === null ? null : hoursOf(((totals[0] ?? 0) * percent) / 100))),
    [rows, totals],
  );
  const labels = useMemo(() => rows.map(({ name }) => name), [rows]);
  if (rows.length === 0) return null;
  const wishes = rows.some((row) => row.wished !== null);
  return (
    <section className={timeUseCss.part} aria-label={title}>
      <h2>{title}</h2>
      <TimeChart label={title} names={labels} series={series} wished={wished} standing={standing} />
      <table className={timeUseCss.table}>
        <thead>
          <tr>
            <th scope="col">{standing ? t('week') : t('name')}</th>
            {names.map((name) => (
              <th key={name} scope="col">
                {t('hoursIn', { span: name })}
              </th>
            ))}
            {!standing && <th scope="col">{t('share')}</th>}
            {wishes && <th scope="col">{t('wished')}</th>}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.key}>
              <th scope="row">{row.name}</th>
              {row.minutes.map((minutes, i) => (
                <td key={names[i]}>{hoursOf(minutes)}</td>
              ))}
              {!standing && <td>{percentOf(row.minutes[0] ?? 0, totals[0] ?? 0)} %</td>}
              {wishes && <td>{row.wished === null ? '' : <Off row={row} total={totals[0] ?? 0} />}</td>}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** What is wished, and how far from it the share is. */
function Off({ row, total }: { row: PartRow; total: number }) {
  const t = useTranslations('timeUse');
  const off = percentOf(row.minutes[0] ?? 0, total) - (row.wished ?? 0);
  return (
    <>
      {row.wished} %
      {off !== 0 && (
        <span className="small wrong block">
          {t('off', { points: Math.abs(off), way: off > 0 ? 'over' : 'under' })}
        </span>
      )}
    </>
  );
}
