import { Delete, Head, Injectable, Patch, Req, Res, type Type } from '@nestjs/common';
import type { Request, Response } from 'express';
import { Access, type Resource } from '../access/access.js';
import type { PolicyName } from '../access/policies.js';
import { App } from '../app.js';
import { SpeaksTus } from './described.js';

/**
 * What goes on with an upload once it is begun, in parts that survive a cut (tus 1.0.0): ask how far it is, send on, give up. A controller of a
 * collection of uploads extends it, and adds how one is begun and what becomes of its file.
 */
export function UploadParts(policy: PolicyName, resource: Resource = {}): Type<{ readonly app: App }> {
  @Injectable()
  class Parts {
    constructor(readonly app: App) {}

    @Head(':uploadId')
    @SpeaksTus()
    @Access(policy, resource)
    howFar(@Req() request: Request, @Res() response: Response): Promise<void> {
      return this.app.resumable.handle(request, response);
    }

    @Patch(':uploadId')
    @SpeaksTus()
    @Access(policy, resource)
    sendOn(@Req() request: Request, @Res() response: Response): Promise<void> {
      return this.app.resumable.handle(request, response);
    }

    @Delete(':uploadId')
    @SpeaksTus()
    @Access(policy, resource)
    giveUp(@Req() request: Request, @Res() response: Response): Promise<void> {
      return this.app.resumable.handle(request, response);
    }
  }
  return Parts;
}
