'use client';
import { useTranslations } from 'use-intl';
import { SightMeter } from '../../common/meters.tsx';
import { RequestMore } from '../../common/requests/request-more.tsx';
import { firstName } from '../../common/token.tsx';
import type { BoardLane } from '../board/board-lanes.ts';
import lanesCss from './lanes.module.css';

/** Whose a lane is, in their colour, and what one sees of it. */
export function LaneHead({ lane, short }: { lane: BoardLane; short: boolean }) {
  const t = useTranslations();
  const sight = lane.state === 'unseen' ? 'nothing' : (lane.head?.rights.sight ?? 'nothing');
  const says = t('lanes.sees', { name: lane.name, sight: t(`sightWords.${sight}`) });
  return (
    <span className={`${lanesCss.head} who-${lane.colour}`} title={says}>
      <span className={lanesCss.name}>{short ? firstName(lane.name) : lane.name}</span>
      {!short && !lane.head?.own && <SightMeter sight={sight} />}
      {!short && !lane.head?.as && sight !== 'full' && lane.state !== 'waiting' && (
        <RequestMore
          handle={lane.handle}
          name={lane.head?.owner.name ?? lane.name}
          of={lane.head?.calendar}
          has={lane.head?.rights}
          small
        />
      )}
      <span className="visually-hidden">, {says}</span>
    </span>
  );
}
