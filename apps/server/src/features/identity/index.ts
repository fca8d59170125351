import { Module } from '@nestjs/common';
import { TerminusModule } from '@nestjs/terminus';
import { ThrottlerModule } from '@nestjs/throttler';
import { CONFIG, type Config } from '../../platform/config/config.js';
import { HealthController } from './health.controller.js';
import { LinkController } from './link.controller.js';
import { LiveController } from './live.controller.js';
import { SessionController } from './session.controller.js';

export { beginSession } from './begin-session.js';
export { ClockController } from './health.controller.js';
export { hashPassword, isEasilyGuessed } from './passwords.js';
export { forgiveAccount } from './sign-in-guard.js';

@Module({
  imports: [
    TerminusModule.forRoot({ logger: false }),
    ThrottlerModule.forRootAsync({
      inject: [CONFIG],
      useFactory: (config: Config) => ({ throttlers: [{ limit: 10, ttl: 60_000 }], skipIf: () => config.testing }),
    }),
  ],
  controllers: [SessionController, LinkController, LiveController, HealthController],
})
export class IdentityModule {}
