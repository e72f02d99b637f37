import { findProgramPeople } from '../../operations/dav/index.ts';
import { bare, multistatusInTurns, xml } from './answers.ts';
import { type DavCall, mapped, tooManyProperties } from './dav-call.ts';
import { responseFor } from './properties.ts';
import { wantedIn } from './requests.ts';
import { hrefs } from './resource.ts';
import { cal, childOf, childrenOf, dav, el, type Xml } from './xml.ts';

/** By what people are looked for: what they are called, and their address. */
const NAME = dav('displayname');
const ADDRESS = cal('calendar-user-address-set');

/** What of people is searched (RFC 3744 9.5). */
export function searchedBy(): Response {
  const one = (name: typeof NAME, says: string) =>
    el(dav('principal-search-property'), el(dav('prop'), el(name)), el(dav('description'), says));
  return xml(200, el(dav('principal-search-property-set'), one(NAME, 'Name'), one(ADDRESS, 'Address')));
}

/**
 * People by what they are called, or by a whole address (RFC 3744 9.4): those whose calendars the viewer sees anything of. What isn't searched here
 * matches nobody.
 */
export async function searchPeople({ ctx, me, path }: DavCall, body: Xml): Promise<Response> {
  const wanted = wantedIn(body);
  if (!wanted) return tooManyProperties();
  const searches = childrenOf(body, dav('property-search')).map((search) => ({
    names: childOf(search, dav('prop'))?.children.map(({ name }) => name) ?? [],
    text: childOf(search, dav('match'))?.text.trim() ?? '',
  }));
  if (searches.length === 0 || searches.length > 10) return bare(400);
  const { people, cut } = findProgramPeople(ctx, {
    all: body.attributes.test !== 'anyof',
    words: searches.map(({ names, text }) => ({
      text,
      name: names.length > 0 && names.every((name) => name === NAME),
      address: names.length > 0 && names.every((name) => name === ADDRESS),
    })),
  });
  const answers = mapped(people, (person) =>
    responseFor(hrefs.person(person.handle), { me, now: ctx.now, kind: 'person', person }, wanted),
  );
  return multistatusInTurns(path, answers, cut);
}
