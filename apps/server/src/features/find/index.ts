import { Module } from '@nestjs/common';
import { FindController } from './find.controller.js';

export { find } from './find.js';

/** Finding things by their names, in the viewer's reach. */
@Module({ controllers: [FindController] })
export class FindModule {}
