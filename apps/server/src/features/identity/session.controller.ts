import { Body, Controller, Delete, Get, HttpCode, Post, Req, Res, UseGuards } from '@nestjs/common';
import { ApiOkResponse } from '@nestjs/swagger';
import { Throttle, ThrottlerGuard } from '@nestjs/throttler';
import type { Request, Response } from 'express';
import { SessionShape, SignInBody } from '@zesting/contract';
import { dayIn, ok } from '@zesting/core';
import { Access } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { passwordFits } from './passwords.js';
import { countTry, forgive } from './sign-in-guard.js';

declare module 'express-session' {
  interface SessionData {
    personId: string;
  }
}

@Controller('session')
export class SessionController {
  constructor(private readonly app: App) {}

  /** Signs in. Ten tries a minute from one address; after failures in a row the wait grows. */
  @Post()
  @HttpCode(200)
  @Access('open')
  @UseGuards(ThrottlerGuard)
  @Throttle({ default: { limit: 10, ttl: 60_000 } })
  async signIn(@Body() body: SignInBody, @Req() request: Request): Promise<SessionShape> {
    const address = request.ip ?? '0.0.0.0';
    valueOrProblem(await this.app.write((tx, now) => countTry(tx, now, body.email, address)));
    const [person] = await this.app.read<{ id: string; password_hash: string | null }>(
      'select id, password_hash from people where lower(email) = lower($1) and active',
      [body.email],
    );
    if (!(await passwordFits(person?.password_hash ?? undefined, body.password)) || !person) throw Problem.of('access.sign_in_failed');
    await this.app.write(async (tx) => ok(await forgive(tx, body.email, address)));
    await new Promise<void>((resolve, reject) => request.session.regenerate((error) => (error ? reject(error) : resolve())));
    request.session.personId = person.id;
    const shape = await this.shapeOf(person.id);
    if (!shape) throw Problem.of('access.sign_in_failed');
    return shape;
  }

  /** The signed-in person; JSON null when nobody is. */
  @Get()
  @ApiOkResponse({ type: SessionShape })
  @Access('open')
  async show(@Req() request: Request, @Res() response: Response): Promise<void> {
    response.json(request.session.personId ? await this.shapeOf(request.session.personId) : null);
  }

  @Delete()
  @HttpCode(204)
  @Access('own.session')
  async signOut(@Req() request: Request): Promise<void> {
    await new Promise<void>((resolve, reject) => request.session.destroy((error) => (error ? reject(error) : resolve())));
  }

  private async shapeOf(personId: string): Promise<SessionShape | null> {
    const [row] = await this.app.read<Omit<SessionShape, 'todayOn'>>(
      `select p.id as "personId", p.name, p.role, p.zone, jsonb_build_object('name', a.name, 'zone', a.zone, 'region', a.region) as agency
       from people p cross join agencies a where p.id = $1 and p.active`,
      [personId],
    );
    return row ? { ...row, todayOn: dayIn(this.app.clock.now(), row.zone) } : null;
  }
}
