import { createTransport } from 'nodemailer';
import { SMTPServer } from 'smtp-server';
import { expect, test } from 'vitest';
import { mailPostBy, postBy } from './post.ts';

test('a letter goes out by a mail service as SMTP, under the Message-ID that names it; a refusal is an error', async () => {
  const heard: string[] = [];
  const server = new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    onRcptTo: (to, _, done) => done(to.address.startsWith('nobody') ? new Error('no such box') : null),
    onData: (stream, _, done) => {
      let text = '';
      stream.on('data', (part: Buffer) => {
        text += part.toString();
      });
      stream.on('end', () => {
        heard.push(text);
        done();
      });
    },
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const address = server.server.address();
  const port = typeof address === 'object' && address ? address.port : 0;
  const post = postBy(createTransport(`smtp://127.0.0.1:${port}`));
  const letter = { key: 'key-1', to: { name: 'Marta Quill', address: 'marta@quill-audit.example' } };
  await post({ ...letter, subject: 'Inés Varga’s calendar', text: 'Dear Marta' });
  expect(heard).toHaveLength(1);
  expect(heard[0]).toMatch(/^Message-ID: <key-1@localhost>$/im);
  expect(heard[0]).toMatch(/^To: Marta Quill <marta@quill-audit\.example>$/m);
  expect(heard[0]).toContain('Dear Marta');
  const nobody = { ...letter, to: { name: 'N', address: 'nobody@quill-audit.example' } };
  await expect(post({ ...nobody, subject: 's', text: 't' })).rejects.toThrow('no such box');
  await new Promise<void>((done) => server.close(done));
});

test('an answer made by itself says so in its header, and leaves without a way back', async () => {
  const heard: { from: string; text: string }[] = [];
  const server = new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    onData: (stream, session, done) => {
      const { mailFrom } = session.envelope;
      let text = '';
      stream.on('data', (part: Buffer) => {
        text += part.toString();
      });
      stream.on('end', () => {
        heard.push({ from: mailFrom ? mailFrom.address : 'none', text });
        done();
      });
    },
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const address = server.server.address();
  const port = typeof address === 'object' && address ? address.port : 0;
  const post = mailPostBy(createTransport(`smtp://127.0.0.1:${port}`));
  const box = (name: string) => ({ name, address: `${name}@quill.example` });
  const mail = {
    from: box('ines'),
    sender: null,
    to: box('marta'),
    subject: 'Auto: Hello',
    text: 'Away',
    meeting: null,
  };
  await post({ ...mail, automatic: true, inReplyTo: '<a@x>', refs: ['<a@x>'] }, '<b@y>');
  await post({ ...mail, inReplyTo: null, refs: [] }, '<c@y>');
  expect(heard.map(({ from }) => from)).toEqual(['', 'ines@quill.example']);
  expect(heard[0]?.text).toMatch(/^Auto-Submitted: auto-replied\r?$/m);
  expect(heard[0]?.text).toMatch(/^In-Reply-To: <a@x>\r?$/m);
  expect(heard[1]?.text).not.toContain('Auto-Submitted');
  await new Promise<void>((done) => server.close(done));
});
