'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import { dateText } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import { PanelHead } from '../details/panel-head.tsx';
import type { Walked } from '../views/moving.ts';
import { RequestLine } from './request-line.tsx';
import { WishFields } from './times-fields.tsx';
import { type Taken, TimesFound } from './times-found.tsx';
import { paramsOf, plainRequest, type TimesRequest, useTimes } from './times-request.ts';

/** The search for times that work, beside the board: who comes, how long, when; each run with its reasons, and a press fills the item in. */
export function OpeningsPanel(props: {
  head: BoardHead;
  day: number;
  /** What a time is looked for from the start on: an item that stands already, who comes to it and where. */
  begin: Partial<TimesRequest> | null;
  onClose: () => void;
  onTake: (taken: Taken) => void;
  /** The time that is walked over, in wall-clock milliseconds: the board shows it in everybody's lane. */
  onWalk: (time: Walked | null) => void;
  onHeld: (answer: SeveralAnswer) => void;
  onMoved: (answer: SeveralAnswer) => void;
}) {
  const { head, day, begin, onClose, onTake, onWalk, onHeld, onMoved } = props;
  const t = useTranslations('openings');
  const { style, frame } = useFrame();
  // From the day it was opened on, wherever the board goes while the times are walked.
  const [request, setRequest] = useState<TimesRequest>(() => ({ ...plainRequest(dateText(day)), ...begin }));
  const change = (more: Partial<TimesRequest>) => setRequest((was) => ({ ...was, ...more }));
  const found = useTimes(head.calendar.key, request, style.zone, false);
  const owner = frame.principals.find((p) => p.handle === head.owner.handle);
  return (
    <aside className={boardsCss.panel} aria-label={t('title')}>
      <PanelHead head={head} onClose={onClose} />
      <h2>{t('title')}</h2>
      {owner && head.calendar.main && (
        <Link className="small" href={`/for/${owner.handle}/openings?${paramsOf(request)}`}>
          {t('screen')}
        </Link>
      )}
      <RequestLine head={head} request={request} unknown={found.data?.unknown ?? []} onChange={change} small />
      <WishFields request={request} onChange={change} />
      <TimesFound
        head={head}
        request={request}
        found={found}
        onChange={change}
        onTake={onTake}
        onWalk={onWalk}
        onHeld={onHeld}
        onMoved={onMoved}
      />
    </aside>
  );
}
