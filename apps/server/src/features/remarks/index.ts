import { Module } from '@nestjs/common';
import { RemarksController, RoomRemarksController } from './remarks.controller.js';

export { lookUpPlaces } from './look-up-place.js';
export { clientRemarks, threadsBeside, type ClientRemark } from './queries/remarks.js';
export { addRemark, addRemarks, type Thing } from './use-cases/add-remark.js';
export { replyToRemark } from './use-cases/reply.js';
export { openRemarks, settleRemark } from './use-cases/settle-remark.js';

@Module({ controllers: [RemarksController, RoomRemarksController] })
export class RemarksModule {}
