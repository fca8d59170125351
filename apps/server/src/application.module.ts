import { Module, type DynamicModule } from '@nestjs/common';
import { FEATURES } from './features.js';
import { ClockController } from './features/identity/index.js';
import type { Config } from './platform/config/config.js';
import { Features, type Feature } from './platform/feature.js';
import { PlatformModule } from './platform/platform.module.js';

/** The whole application: the platform and its features. */
@Module({})
export class ApplicationModule {
  static with(config: Config, features: readonly Feature[] = FEATURES): DynamicModule {
    return {
      module: ApplicationModule,
      imports: [PlatformModule.with(config, new Features(features)), ...features.map((feature) => feature.module)],
      controllers: config.testing ? [ClockController] : [],
    };
  }
}
