import { Module } from '@nestjs/common';
import { LibraryController } from './library.controller.js';

export { addTagSet } from './use-cases/edit-tag-set.js';

@Module({ controllers: [LibraryController] })
export class LibraryModule {}
