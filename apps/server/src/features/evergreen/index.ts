import { Module } from '@nestjs/common';
import { EvergreenController } from './evergreen.controller.js';

export { stockOf, stockOfPiece, type StockRow } from './queries/stock.js';
export { markEvergreen } from './use-cases/mark.js';

@Module({ controllers: [EvergreenController] })
export class EvergreenModule {}
