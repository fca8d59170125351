import { parentPort, workerData } from 'node:worker_threads';
import { readTable } from './read-table.js';

const bytes = workerData as Uint8Array; // handed over by `readTableFile` alone
void readTable(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)).then((read) => parentPort?.postMessage(read));
