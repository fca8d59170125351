import { Module } from '@nestjs/common';
import { AgencyController } from './agency.controller.js';
import { StartController } from './start.controller.js';

export { Agency } from './entities/agency.entity.js';
export { editAgency } from './use-cases/edit-agency.js';
export { takeStock } from './use-cases/take-stock.js';

@Module({ controllers: [AgencyController, StartController] })
export class AgencyModule {}
