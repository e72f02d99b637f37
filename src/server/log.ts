import pino from 'pino';

const holder = globalThis as { paramoLog?: pino.Logger };

/** The log: structured lines without titles, notes, addresses or tokens. `PARAMO_LOG` sets the level. */
export function log(): pino.Logger {
  holder.paramoLog ??= pino({ level: process.env.PARAMO_LOG ?? 'info', base: null });
  return holder.paramoLog;
}
