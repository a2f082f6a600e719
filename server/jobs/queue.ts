// queue.ts — where long work waits for its turn. Routes and start-up know only this; how jobs are carried out is a driver's.
import type { Job } from '../stores/jobs.ts';

export interface Queue {
  /** Takes up what an earlier run of the server left behind. */
  resume(): Promise<void>;
  add(job: Job): void;
  /** Ends a job, wherever it stands; one that has ended stays as it is. */
  cancel(id: string): Promise<void>;
}
