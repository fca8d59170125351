import { parentPort, workerData } from 'node:worker_threads';
import { getDay, toCalendar, type CalendarFacts } from '@zesting/core';
import { readTimeOff } from './ical-time-off.js';

/** What is handed to the worker: facts, since a calendar is made of functions. */
export interface TimeOffTask {
  readonly text: string;
  readonly zone: string;
  readonly todayOn: string;
  readonly facts: CalendarFacts;
}

const { text, zone, todayOn, facts } = workerData as TimeOffTask; // written by `readTimeOffFile` alone
parentPort?.postMessage(readTimeOff(text, { zone, todayOn: getDay(todayOn), calendar: toCalendar(facts) }));
