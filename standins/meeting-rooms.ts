/**
 * The stand-in for a service with rooms to meet in from afar: an address under which a room of a given name would be. A real one is set by
 * an address with `{room}` where the name goes.
 */
export const roomAt = (service: string | null, room: string): string =>
  (service ?? 'https://rooms.cloudmoor.example/{room}').replace('{room}', encodeURIComponent(room));
