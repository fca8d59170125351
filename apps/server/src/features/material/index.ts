import { Module } from '@nestjs/common';
import { MaterialController, RoomMaterialController } from './material.controller.js';
import { RoomUploadsController } from './uploads.controller.js';

export { addMaterial, putMaterial } from './use-cases/add-material.js';
export { askForMaterial } from './use-cases/ask-for-material.js';
export { addBrought, broughtAll } from './use-cases/bring-material.js';
export { deliveriesFor } from './queries/deliveries.js';

@Module({ controllers: [MaterialController, RoomMaterialController, RoomUploadsController] })
export class MaterialModule {}
