import { expect, test } from 'vitest';
import { closedOn } from './work-hours.tsx';

const nine: [string, string][] = [['09:00', '18:00']];
const week = [nine, nine, nine, nine, nine, [], []];
const monday = Date.UTC(2027, 2, 1);

test('outside somebody’s hours is shaded, on the clock of whoever looks', () => {
  expect(closedOn(week, 'Europe/Lisbon', monday, 'Europe/Lisbon')).toEqual([
    [0, 540],
    [1080, 1440],
  ]);
  // Nine in Bogotá is two in the afternoon in Lisbon.
  expect(closedOn(week, 'America/Bogota', monday, 'Europe/Lisbon')).toEqual([
    [0, 840],
    [1380, 1440],
  ]);
  // Friday's evening in Bogotá reaches into Lisbon's night.
  const late = [[], [], [], [], [['18:00', '22:00']] as [string, string][], [], []];
  expect(closedOn(late, 'America/Bogota', Date.UTC(2027, 2, 6), 'Europe/Lisbon')).toEqual([[180, 1440]]);
  expect(closedOn(week, 'Europe/Lisbon', Date.UTC(2027, 2, 6), 'Europe/Lisbon')).toEqual([[0, 1440]]);
  expect(closedOn(null, 'Europe/Lisbon', monday, 'Europe/Lisbon')).toEqual([]);
});
