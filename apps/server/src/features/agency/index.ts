import { Module } from '@nestjs/common';
import { AgencyController, FormatsController } from './agency.controller.js';
import { StartController } from './start.controller.js';

export { Agency } from './entities/agency.entity.js';
export { editAgency } from './use-cases/edit-agency.js';
export { takeStock } from './use-cases/take-stock.js';

@Module({ controllers: [AgencyController, FormatsController, StartController] })
export class AgencyModule {}
