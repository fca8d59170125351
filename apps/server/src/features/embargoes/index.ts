import { Module } from '@nestjs/common';
import { EmbargoesController } from './embargoes.controller.js';

export { keepEmbargo, setEmbargo } from './use-cases/set-embargo.js';
export { windowOf } from './queries/window-of.js';

@Module({ controllers: [EmbargoesController] })
export class EmbargoesModule {}
