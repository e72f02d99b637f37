import { createHmac } from 'node:crypto';
import { now } from '../clock.ts';
import { settings } from '../settings.ts';
import { startCorrespondents } from '../stand-ins.ts';

/** Starts the people outside the sample organisation; what they write comes in as any mail from outside does. Answers the address of their mail service. */
export async function startStandIn(): Promise<string> {
  const { data, port, inboundSecret } = settings();
  const { url } = await startCorrespondents({
    folder: data,
    now,
    deliver: async (raw, to) => {
      const signature = createHmac('sha256', inboundSecret ?? '')
        .update(raw)
        .digest('hex');
      await fetch(`http://127.0.0.1:${port}/api/inbound`, {
        method: 'POST',
        headers: {
          'content-type': 'message/rfc822',
          'x-paramo-signature': `sha256=${signature}`,
          'x-paramo-recipient': to,
        },
        body: new Uint8Array(raw),
      });
    },
  });
  return url;
}
