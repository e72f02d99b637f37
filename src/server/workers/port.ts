import type { Listener } from '../live/hub.ts';
import type { Ended, QueuedJob } from './thread.ts';

/** What a long job on a worker may ask of the main thread. */
export interface Port {
  /** How far it has come. */
  progress(done: number, of: number): void;
  /** Whether whoever began it wants it stopped. */
  stopped(): boolean;
  /** Lets others have their turn. */
  others(): Promise<void>;
  /** Runs its closing act while nobody else writes; answers who has a window open then. */
  alone<T>(work: (listeners: readonly Listener[]) => T): Promise<T>;
}

export type JobName =
  | 'readDesk'
  | 'listTrail'
  | 'readTimeUse'
  | 'timeUseFile'
  | 'readDay'
  | 'dayLetter'
  | 'trailFile'
  | 'listItems'
  | 'listObjects'
  | 'queryFreeBusy'
  | 'requestFreeBusy'
  | 'listInbox'
  | 'readLink'
  | 'whoCanCome'
  | 'readObject'
  | 'createMeeting'
  | 'changeSeveral'
  | 'changeMeeting'
  | 'putObject'
  | 'deleteObject'
  | 'moveObject'
  | 'deliver'
  | 'importTasks'
  | 'importContacts'
  | 'exportTasks'
  | 'undoListed'
  | 'exportContacts'
  | 'listAlikeContacts'
  | 'listAroundContact'
  | 'listLoad'
  | 'previewAccess'
  | 'readFindings'
  | 'listSightlines'
  | 'suggestLevel'
  | 'search'
  | 'findDays'
  | 'findRoom'
  | 'findRound'
  | 'findSeriesTimes'
  | 'readTimesDay'
  | 'checkTime'
  | 'findTimes'
  | 'exportFile'
  | 'readFile'
  | 'bringIn'
  | 'takeBatchBack'
  | 'changeGrants';

/** A work to be done on a worker thread: for whom, at what instant, and with what. Plain data. */
export interface Job {
  readonly name: JobName;
  /** The row number of the viewer; `null` where it is whoever holds a link. */
  readonly viewer: number | null;
  readonly session: string | null;
  /** What the request came with, and is limited to. */
  readonly token: { readonly key: string; readonly only: number | null } | null;
  /** Whether the viewer wants to be asked before a meeting leaves the house. */
  readonly confirmFirst: boolean;
  readonly now: number;
  readonly args: unknown;
}

/** What the threads say to each other. `id` names the job. */
export type ToThread =
  | QueuedJob<Job>
  | { readonly id: number; readonly stop: true }
  | { readonly id: number; readonly go: readonly Listener[] };
export type FromThread =
  | { readonly id: number; readonly progress: readonly [done: number, of: number] }
  | { readonly id: number; readonly wantsAlone: true }
  | { readonly id: number; readonly isOver: true }
  | Ended;
