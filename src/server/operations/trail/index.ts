export { chainOf, forgetTrail, readTrailDigest } from './chain.ts';
export { readTrail } from './item-trail.ts';
export { doneByOthers, listTrail } from './list-trail.ts';
export { trailFile } from './trail-file.ts';
