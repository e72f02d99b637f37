'use client';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useTranslations } from 'use-intl';
import type { OpenedItem } from '@/contract/sharing/sharing.ts';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { whenText } from '../../common/times.ts';

/** Coming items that everyone would come to read, before what everyone gets is raised; ticked ones are marked private with it. */
export function Opened(props: {
  items: readonly OpenedItem[];
  ticked: ReadonlySet<string>;
  onTick: (ids: ReadonlySet<string>) => void;
}) {
  const { items, ticked, onTick } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const sorted = [...items].sort((a, b) => Number(b.topic !== null) - Number(a.topic !== null));
  const toggle = (id: string) => {
    const next = new Set(ticked);
    if (!next.delete(id)) next.add(id);
    onTick(next);
  };
  const sensitive = items.filter((i) => i.topic !== null);
  return (
    <section
      className={`${pageCss.card} ${pageCss['wrong-card']}`}
      aria-label={t('lines.openedHead', { count: items.length })}
    >
      <h3 className="wrong">{t('lines.openedHead', { count: items.length })}</h3>
      <p className="small soft">{t('lines.openedHelp')}</p>
      {sensitive.length > 0 && (
        <Button variant="text" onClick={() => onTick(new Set([...ticked, ...sensitive.map((i) => i.id)]))}>
          {t('lines.openedAll')}
        </Button>
      )}
      <div className="stack gap-0 box">
        {sorted.map((item) => (
          <FormControlLabel
            key={item.id}
            control={<Checkbox size="small" checked={ticked.has(item.id)} onChange={() => toggle(item.id)} />}
            label={
              <>
                {item.title} <span className="small soft">{whenText(item, style)}</span>
                {item.topic && <span className="small wrong"> {t(`topics.${item.topic}`)}</span>}
              </>
            }
          />
        ))}
      </div>
    </section>
  );
}
