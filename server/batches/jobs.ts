import { z } from 'zod'
import { jobKind } from '../jobs/kind'
import { runAsked, workOffRun } from '../runs/run-jobs'
import { endOfPair, tryPair, undoPair, watchBatch } from './pair-jobs'

/** What is done with a pair, and wanted soon: where its process was killed, another goes on with it within seconds. */
const ofPair = { lane: 'pairs', isHeavy: true, leaseSeconds: 4 } as const
export const batchTryJob = jobKind({ ...ofPair, triesAtMost: 3, payload: z.object({}), work: tryPair })
export const batchRunJob = jobKind({
  ...ofPair,
  triesAtMost: 6,
  payload: runAsked.extend({ pair: z.uuid() }),
  work: (db, job) => workOffRun(db, job, endOfPair(job.payload.pair)),
})
export const batchUndoJob = jobKind({ ...ofPair, triesAtMost: 3, payload: z.object({}), work: undoPair })
/** Watches over a batch until all of it is through: it begins again each second, and is never given up. */
export const batchWatchJob = jobKind({
  lane: 'batch',
  isHeavy: false,
  leaseSeconds: 30,
  triesAtMost: Infinity,
  payload: z.object({}),
  work: watchBatch,
})
