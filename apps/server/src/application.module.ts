import { Module, type DynamicModule } from '@nestjs/common';
import { Agency, AgencyModule } from './features/agency/index.js';
import { CalendarModule, Placement } from './features/calendar/index.js';
import { Client, ClientsModule } from './features/clients/index.js';
import { FindModule } from './features/find/index.js';
import { ClockController, IdentityModule } from './features/identity/index.js';
import { IntakeModule, Request } from './features/intake/index.js';
import { NoticesModule } from './features/notices/index.js';
import { PlanningModule } from './features/planning/index.js';
import { PeopleModule, Person } from './features/people/index.js';
import { Piece, ProductionModule, Step, Version } from './features/production/index.js';
import { Packet, PacketItem, SignOffModule } from './features/signoff/index.js';
import { TeamNote, TeamNotesModule } from './features/team-notes/index.js';
import type { Config } from './platform/config/config.js';
import { PlatformModule } from './platform/platform.module.js';

export const ENTITIES = [Agency, Client, Person, Request, Piece, Step, Version, Packet, PacketItem, Placement, TeamNote];

/** The whole application: the platform and every feature. */
@Module({})
export class ApplicationModule {
  static with(config: Config): DynamicModule {
    return {
      module: ApplicationModule,
      imports: [
        PlatformModule.with(config, ENTITIES),
        IdentityModule,
        AgencyModule,
        NoticesModule,
        ClientsModule,
        PeopleModule,
        IntakeModule,
        PlanningModule,
        ProductionModule,
        SignOffModule,
        CalendarModule,
        TeamNotesModule,
        FindModule,
      ],
      controllers: config.testing ? [ClockController] : [],
    };
  }
}
