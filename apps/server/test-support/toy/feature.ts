import { Body, Controller, Get, Module, Param, Post } from '@nestjs/common';
import type { FoundShape } from '@zesting/contract';
import { ok } from '@zesting/core';
import { IsNotEmpty, IsString, MaxLength } from 'class-validator';
import { Entity, PrimaryColumn } from 'typeorm';
import { Access, CurrentViewer, type Viewer } from '../../src/platform/access/access.js';
import { MANAGERS, type NamesOf, type Policy } from '../../src/platform/access/policies.js';
import { recordActivity } from '../../src/platform/activity.js';
import { App } from '../../src/platform/app.js';
import { IdColumn, TextColumn } from '../../src/platform/database/columns.js';
import { holdsEvery, type Feature } from '../../src/platform/feature.js';
import { valueOrProblem } from '../../src/platform/http/problem.js';

// A feature as small as one can be, outside of the application: the example of docs/adding-a-feature.md, driven by features.db.test.ts.

/** What its migration would make. */
export const SCHEMA = `create table mottos (
  id uuid primary key default gen_random_uuid(),
  client_id uuid not null constraint fk_mottos_client references clients,
  words text not null
)`;

@Entity('mottos')
export class Motto {
  @PrimaryColumn('uuid', { generated: 'uuid' }) id: string;
  @IdColumn() clientId: string;
  @TextColumn() words: string;
}

export class MottoBody {
  @IsString()
  @IsNotEmpty()
  @MaxLength(200)
  words: string;
}

@Controller()
export class MottosController {
  constructor(private readonly app: App) {}

  @Post('clients/:clientId/mottos')
  @Access('motto.write', { client: 'clientId' })
  async add(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() { words }: MottoBody): Promise<Motto> {
    return valueOrProblem(
      await this.app.write(async (tx, at) => {
        const motto = await tx.save(tx.create(Motto, { clientId, words }));
        await recordActivity(tx, {
          clientId,
          thing: 'client',
          thingId: clientId,
          verb: 'motto.added',
          actor: viewer.name,
          detail: { words },
          at,
        });
        return ok(motto);
      }),
    );
  }

  @Get('mottos/:mottoId')
  @Access('motto.read', { motto: 'mottoId' })
  show(@Param('mottoId') mottoId: string): Promise<Motto> {
    return this.app.manager.findOneByOrFail(Motto, { id: mottoId });
  }
}

@Module({ controllers: [MottosController] })
export class MottosModule {}

const policies = {
  'motto.write': { roles: MANAGERS },
  'motto.read': { roles: { ...MANAGERS, staff: 'own' } },
} as const satisfies Record<string, Policy>;

const owners = { motto: 'select client_id, null::uuid as piece_id, null::uuid as request_id from mottos where id = $1' } as const;

declare module '../../src/platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'mottos',
  module: MottosModule,
  entities: [Motto],
  policies,
  owners,
  finds: [
    {
      order: 9,
      by: 'managers',
      find: (app, { patterns, clientIds, limit }) =>
        app.read<FoundShape>(
          `select 'client' as kind, id, words as title, 'motto' as note, '/clients/' || client_id as path, client_id as "clientId" from mottos
           where client_id = any($1) and ${holdsEvery('plain_letters(words)', patterns, 2)} limit ${limit}`,
          [clientIds, ...patterns],
        ),
    },
  ],
};
