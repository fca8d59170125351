import { Module } from '@nestjs/common';
import { ClientsController } from './clients.controller.js';
import { ObservancesController } from './observances.controller.js';

export { Client } from './entities/client.entity.js';
export { editClient, languageChanged } from './use-cases/edit-client.js';
export { addObservance, takeObservance } from './use-cases/observances.js';
export { addContact } from './use-cases/add-contact.js';
export { linksKept, linksOf, managesOwn } from './use-cases/change-link.js';
export { archiveClient, clientMade, makeClient } from './use-cases/make-client.js';

@Module({ controllers: [ClientsController, ObservancesController] })
export class ClientsModule {}
