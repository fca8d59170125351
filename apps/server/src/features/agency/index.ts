import { Module } from '@nestjs/common';
import { AgencyController } from './agency.controller.js';

export { Agency } from './agency.entity.js';
export { editAgency } from './edit-agency.js';

@Module({ controllers: [AgencyController] })
export class AgencyModule {}
