import { Body, Controller, Delete, Get, HttpCode, Param, Post, Req, Res, UseGuards } from '@nestjs/common';
import { ApiExtraModels, ApiOkResponse, getSchemaPath } from '@nestjs/swagger';
import { Throttle, ThrottlerGuard } from '@nestjs/throttler';
import type { Request, Response } from 'express';
import { SessionShape, SignInBody, type DeviceShape } from '@zesting/contract';
import { ok } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { beginSession, sessionOf } from './begin-session.js';
import { devicesOf, endDevice, endOtherDevices, seen } from './devices.js';
import { passwordFits } from './passwords.js';
import { countTry, forgive } from './sign-in-guard.js';

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
    return beginSession(this.app, request, person.id);
  }

  /** The signed-in person; JSON null when nobody is. */
  @Get()
  @ApiExtraModels(SessionShape)
  @ApiOkResponse({ schema: { nullable: true, allOf: [{ $ref: getSchemaPath(SessionShape) }] } })
  @Access('open')
  async show(@Req() request: Request, @Res() response: Response): Promise<void> {
    const { personId } = request.session;
    if (personId) await seen(this.app, request.sessionID);
    response.json(personId ? await sessionOf(this.app, personId) : null);
  }

  @Delete()
  @HttpCode(204)
  @Access('own.session')
  async signOut(@Req() request: Request): Promise<void> {
    await new Promise<void>((resolve, reject) => request.session.destroy((error) => (error ? reject(error) : resolve())));
  }

  /** Where one is signed in, the newest first. */
  @Get('devices')
  @Access('own.session')
  devices(@CurrentViewer() viewer: Viewer, @Req() request: Request): Promise<DeviceShape[]> {
    return devicesOf(this.app, viewer.personId, request.sessionID);
  }

  /** Signs out everywhere but here. */
  @Delete('devices')
  @HttpCode(204)
  @Access('own.session')
  async endOthers(@CurrentViewer() viewer: Viewer, @Req() request: Request): Promise<void> {
    await endOtherDevices(this.app, viewer.personId, request.sessionID);
  }

  /** Signs out one device of one's own. */
  @Delete('devices/:deviceId')
  @HttpCode(204)
  @Access('own.session')
  async endOne(@CurrentViewer() viewer: Viewer, @Param('deviceId') deviceId: string): Promise<void> {
    if (!(await endDevice(this.app, viewer.personId, deviceId))) throw Problem.of('access.not_found');
  }
}
