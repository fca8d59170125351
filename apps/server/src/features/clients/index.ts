import { Module } from '@nestjs/common';
import { ClientsController } from './clients.controller.js';

export { Client } from './entities/client.entity.js';

@Module({ controllers: [ClientsController] })
export class ClientsModule {}
