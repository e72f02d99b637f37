import { newKey } from '../../ids.ts';
import { insertPerson, type Person, personByAddress, personById } from '../../repositories/people.ts';
import { type Context, trailOwn } from '../deciding/index.ts';
import { freeHandle } from './handles.ts';

/**
 * Makes a person known by an address alone, outside the organisation: no calendar, no account until they ask for a way in.
 * Answers the one who is there already where somebody was quicker.
 */
export function addOutsider(ctx: Context, address: string, name: string): Person {
  const known = personByAddress(ctx.db, address);
  if (known) return known;
  const id = insertPerson(
    ctx.db,
    {
      key: newKey(),
      handle: freeHandle(ctx.db, address.split('@')[0] ?? 'guest'),
      account: null,
      name,
      address,
      role: '',
      site: '',
      phone: '',
      zone: ctx.viewer.zone,
      colour: address.length % 6,
      hours: '24',
      weekFirst: 1,
      administrator: false,
      inside: false,
      kind: 'person',
    },
    ctx.now,
  );
  const person = personById(ctx.db, id) as Person;
  trailOwn(ctx, person.key, 'outsider.added', null, { name, address });
  return person;
}
