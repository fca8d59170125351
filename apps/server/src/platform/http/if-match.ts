import { createParamDecorator, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';
import { Problem } from './problem.js';

/** The version that an update was made against, from `If-Match: "7"`. Missing: 428. */
export const IfMatch = createParamDecorator((_: unknown, context: ExecutionContext): number => {
  const header = context.switchToHttp().getRequest<Request>().headers['if-match'];
  const version = /^"?(\d{1,9})"?$/.exec(header ?? '')?.[1];
  if (version === undefined) throw Problem.of('http.version_missing');
  return Number(version);
});
