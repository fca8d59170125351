import { propose, type SlottingCase } from '@zesting/core';

/** Fills the slots of a period, away from the page's own thread. */
addEventListener('message', ({ data }: MessageEvent<SlottingCase>) => postMessage(propose(data)));
