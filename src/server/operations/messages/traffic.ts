import { settings } from '../../settings.ts';
import { type Traffic, trafficIn } from '../../stand-ins.ts';

/** What went between the sample organisation and the people outside it; `null` outside the demo, and where a real mail service is set. */
export function traffic(): Traffic[] | null {
  const { demo, smtp, data } = settings();
  return demo && smtp === null ? trafficIn(data) : null;
}
