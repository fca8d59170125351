import { parentPort, workerData } from 'node:worker_threads';
import { getDay } from '@zesting/core';
import { datedLinesOf } from './dated-lines-of.js';

/** What is handed to the worker. */
export interface LinesTask {
  readonly bytes: Uint8Array;
  readonly zone: string;
  readonly todayOn: string;
}

const { bytes, zone, todayOn } = workerData as LinesTask; // written by `readDatesFile` alone
void datedLinesOf(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), { zone, todayOn: getDay(todayOn) }).then((read) =>
  parentPort?.postMessage(read),
);
