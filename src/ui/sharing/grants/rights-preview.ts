import { call } from '@/contract/call.ts';
import type { AudienceWire, PreviewAnswer } from '@/contract/sharing/sharing.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { dateText } from '@/core/time/index.ts';
import { usePreview } from '../../common/fetched/preview.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { DAY } from '../../common/times.ts';

/**
 * What somebody would see of a week and could do, with these rights in place of the grant `seen`, and every choice beside them. `rights` is null
 * where theirs would be taken away; `week` is the wall time it begins.
 */
export function useRightsPreview(
  calendar: string,
  audience: AudienceWire,
  rights: RightsWire | null,
  seen: string | null,
  week: number,
) {
  const { style } = useFrame();
  const range = { from: dateText(week), to: dateText(week + 7 * DAY), zone: style.zone };
  const body = { audience, rights, seen, range };
  return usePreview(
    KEYS.calendar(calendar, 'preview', body),
    () => call('previewAccess', { params: { calendar }, body }) as Promise<PreviewAnswer>,
  );
}
