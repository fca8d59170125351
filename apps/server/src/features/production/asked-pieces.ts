import { applyDecorators, createParamDecorator, type ExecutionContext } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import type { Request } from 'express';
import type { PiecesAsked } from './queries/piece-rows.js';

/** The names in a query that narrow and order pieces. What each may hold is checked for the whole application (`platform/http/checks`). */
const NAMES = [
  'clientId',
  'cursor',
  'shown',
  'stage',
  'doer',
  'order',
  'formatId',
  'channelId',
  'pillarId',
  'campaignId',
  'danger',
  'leadId',
  'from',
  'to',
] as const satisfies readonly (keyof PiecesAsked)[];

/** What a request asks of pieces; the route says with `DescribesAskedPieces` that it does. */
export const AskedPieces = createParamDecorator((_: unknown, context: ExecutionContext): PiecesAsked => {
  const { query } = context.switchToHttp().getRequest<Request>();
  return Object.fromEntries(NAMES.flatMap((name) => (query[name] === undefined ? [] : [[name, query[name]]]))) as PiecesAsked; // each was checked
});

export const DescribesAskedPieces = (): MethodDecorator & ClassDecorator =>
  applyDecorators(...NAMES.map((name) => ApiQuery({ name, required: false, type: String })));
