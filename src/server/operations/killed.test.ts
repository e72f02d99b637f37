import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { createTransport } from 'nodemailer';
import { SMTPServer } from 'smtp-server';
import { expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import { answerOf, type Meeting } from '@/core/meetings/index.ts';
import { keepMade } from '../../../scripts/built.mjs';
import { mailPostBy } from '../mail/post.ts';
import { releaseDue } from './meetings/index.ts';
import { takeMail } from './messages/receive-mail.ts';
import { sendMail, settleMail } from './messages/send-mail.ts';
import { replyTo } from './reply-in-mail.ts';
import { smallOrganisation } from './small-organisation.ts';

/** How often it is killed. */
const TIMES = 100;
/** In so many organisations at a time. */
const LANES = 4;

/** A mail service that counts what it accepted, by Message-ID. */
async function countingService() {
  const got = new Map<string, number>();
  const server = new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    onData(stream, _, done) {
      let text = '';
      stream.on('data', (part: Buffer) => {
        text += part.toString('latin1');
      });
      stream.on('end', () => {
        const id = /^message-id:\s*(\S+)/im.exec(text)?.[1] ?? '';
        got.set(id, (got.get(id) ?? 0) + 1);
        done();
      });
    },
  });
  server.on('error', () => {});
  await new Promise<void>((up) => server.listen(0, '127.0.0.1', up));
  const address = server.server.address();
  return { got, port: typeof address === 'object' && address ? address.port : 0, close: () => server.close(() => {}) };
}

/** Lets a process work until it has said so many steps, and kills it there. Answers the meetings it had saved. */
function killedAfter(child: ChildProcess, steps: number): Promise<[uid: string, address: string][]> {
  return new Promise((done, fail) => {
    const saved: [string, string][] = [];
    let said = '';
    let count = 0;
    child.stdout?.on('data', (part: Buffer) => {
      said += part.toString();
      const lines = said.split('\n');
      said = lines.pop() ?? '';
      for (const line of lines) {
        const [step, uid = '', address = ''] = line.split(' ');
        if (step === 'saved') saved.push([uid, address]);
        if (++count > steps) child.kill('SIGKILL');
      }
    });
    let wrong = '';
    child.stderr?.on('data', (part: Buffer) => {
      wrong += part.toString();
    });
    child.on('exit', (_, signal) =>
      signal === 'SIGKILL' ? done(saved) : fail(new Error(`it ended by itself: ${wrong}`)),
    );
  });
}

/** An organisation whose process is killed so often, and what is there of its work in the end. */
async function killedOften(script: string, lane: number): Promise<void> {
  const org = smallOrganisation(['ines', 'tomas', 'bruno']);
  org.give('ines', 'tomas', PRESETS.delegate);
  const service = await countingService();
  const saved: [string, string][] = [];
  try {
    for (let n = lane; n < TIMES; n += LANES) {
      const env = { ...process.env, PARAMO_DATA: org.folder, PARAMO_DEMO: '1', PARAMO_LOG: 'silent' };
      const child = spawn(process.execPath, [script, String(service.port), String(n)], { env });
      saved.push(...(await killedAfter(child, 1 + (n % 9))));
    }
    expect(saved.length).toBeGreaterThan(TIMES / LANES / 2);

    // Started once more, it goes on where it was; what a mail service wasn't told was taken it hands on again.
    const { db } = org;
    const later = Date.now() + 3_600_000;
    settleMail(db, false);
    while (releaseDue(db, later) > 0);
    await sendMail(db, later, mailPostBy(createTransport(`smtp://127.0.0.1:${service.port}`)));
    await sendMail(db, later, mailPostBy(createTransport(`smtp://127.0.0.1:${service.port}`)));
    for (const [uid, address] of saved) {
      const raw = Buffer.from(replyTo(uid, address));
      await takeMail(db, later, raw, ['ines@cloudmoor.example'], 'mx.example');
    }

    expect(db.raw.pragma('integrity_check')).toEqual([{ integrity_check: 'ok' }]);
    expect(Math.max(...service.got.values())).toBe(1);
    type Row = { message_id: string; to_address: string; sent_at: number | null; given_up: 0 | 1 };
    const mails = db.all<Row>('SELECT message_id, to_address, sent_at, given_up FROM outgoing_mail');
    // Everything that was said to be saved is there, once; what was saved and not said before the kill may be there too.
    const written = mails.map((m) => m.to_address);
    expect(saved.filter(([, address]) => !written.includes(address))).toEqual([]);
    expect(written).toHaveLength(new Set(written).size);
    for (const mail of mails) {
      // Sent for certain, or shown as something a person has to look at: never silently gone.
      expect([mail.to_address, mail.sent_at !== null || mail.given_up === 1]).toEqual([mail.to_address, true]);
      if (mail.sent_at !== null) expect(service.got.get(mail.message_id)).toBe(1);
    }
    const count = (sql: string, uid: string) => db.get<{ n: number }>(sql, uid)?.n;
    for (const [uid, address] of saved) {
      expect(count('SELECT count(*) AS n FROM item WHERE uid = ? AND removed_at IS NULL', uid)).toBe(2);
      expect(
        count(`SELECT count(*) AS n FROM message WHERE thread = 'meeting ' || ? AND kind = 'invitation'`, uid),
      ).toBe(2);
      expect(count(`SELECT count(*) AS n FROM message WHERE thread = 'meeting ' || ? AND kind = 'answer'`, uid)).toBe(
        1,
      );
      const row = db.get<{ state: string }>(`SELECT state FROM meeting WHERE uid = ? AND part = 'organiser'`, uid);
      expect(answerOf(JSON.parse(row?.state ?? '') as Meeting, address)).toBe('accepted');
    }
  } finally {
    service.close();
    org.close();
  }
}

test('killed a hundred times between saving, waiting, sending and receiving, nothing is lost and nothing sent twice', {
  timeout: 600_000,
}, async () => {
  const folder = mkdtempSync(join(process.cwd(), 'node_modules', '.killed-'));
  const bundle = join(folder, 'at-work.cjs');
  await build({
    entryPoints: ['src/server/operations/at-work.ts'],
    outfile: bundle,
    bundle: true,
    // All in one, so that each start is quick; only what is native, or reads files of its own, stays outside.
    external: ['better-sqlite3', 'better-auth', 'next'],
    minify: true,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    alias: { '@': './src' },
    logLevel: 'silent',
  });
  keepMade(bundle);
  const script = join(folder, 'at-work.mjs');
  const loads = pathToFileURL('scripts/built.mjs');
  writeFileSync(
    script,
    `import { load } from ${JSON.stringify(loads)};\nawait load(${JSON.stringify(bundle)}).work(...process.argv.slice(2));\n`,
  );
  try {
    await Promise.all(Array.from({ length: LANES }, (_, lane) => killedOften(script, lane)));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
