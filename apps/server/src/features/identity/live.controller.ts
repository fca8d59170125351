import { Controller, Get, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { Live } from '../../platform/live/live.js';

const KEEP_OPEN_MS = 15_000;

@Controller('live')
export class LiveController {
  constructor(private readonly live: Live) {}

  /**
   * A stream of events (text/event-stream): `changed` with the newest number of the record when something in the viewer's reach
   * changed, `presence` with a piece's id when somebody opened or left it. It ends when the viewer's access ends.
   */
  @Get()
  @AnswersBytes('text/event-stream')
  @Access('own.session')
  open(@CurrentViewer() viewer: Viewer, @Req() request: Request, @Res() response: Response): void {
    response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' });
    response.flushHeaders();
    response.write('retry: 1000\n\n: open\n\n');
    const beat = setInterval(() => response.write(': still here\n\n'), KEEP_OPEN_MS);
    const close = this.live.open({
      personId: viewer.personId,
      sessionId: request.sessionID,
      send: (event, data) => response.write(`event: ${event}\ndata: ${data}\n\n`),
      end: () => response.end(),
    });
    response.on('close', () => {
      clearInterval(beat);
      close();
    });
  }
}
