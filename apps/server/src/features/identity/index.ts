import { Module } from '@nestjs/common';
import { ThrottlerModule } from '@nestjs/throttler';
import { HealthController } from './health.controller.js';
import { LinkController } from './link.controller.js';
import { SessionController } from './session.controller.js';

export { ClockController } from './health.controller.js';
export { hashPassword } from './passwords.js';

@Module({
  imports: [ThrottlerModule.forRoot({ throttlers: [{ limit: 10, ttl: 60_000 }], skipIf: () => process.env['ZESTING_TESTING'] === '1' })],
  controllers: [SessionController, LinkController, HealthController],
})
export class IdentityModule {}
