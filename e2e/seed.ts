import { seedOnce } from './servers.ts';

/* Seeds the sample organisation that all servers of the browser tests begin with. */
seedOnce();
