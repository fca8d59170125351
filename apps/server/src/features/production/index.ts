import { Module, type OnModuleInit } from '@nestjs/common';
import { App } from '../../platform/app.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { clearUnusedFiles } from './use-cases/clear-unused.js';
import { AlongController } from './along.controller.js';
import { CopyController } from './copy.controller.js';
import { SheetController } from './sheet.controller.js';
import { PathController } from './path.controller.js';
import { PiecesController } from './pieces.controller.js';
import { PieceUploadsController } from './uploads.controller.js';
import { StepsController } from './steps.controller.js';
import { ToMakeController } from './to-make.controller.js';
import { VersionsController } from './versions.controller.js';

export { Piece } from './entities/piece.entity.js';
export { Step } from './entities/step.entity.js';
export { Version } from './entities/version.entity.js';
export {
  finishStep,
  freezeVersion,
  hasContent,
  isAvailable,
  lockPiece,
  nextAfter,
  openSignOffStep,
  pieceChanged,
  setContent,
  stepFinished,
  stepKey,
  stepsOf,
  todayOf,
} from './piece-store.js';
export { PLACEMENT_COLUMNS, STATE_OUTSIDE } from './queries/placement-columns.js';
export { UPLOAD_COLUMNS } from './queries/uploads.js';
export { renameSkillsOfSteps } from './piece-store.js';
export { channelRules, channelShapes } from './queries/channel-rules.js';
export { firstPicture } from './queries/first-picture.js';
export { checkedMedium, fileFacts, mediaOut, mediumShape, partShape, type FileFacts, type FileOut } from './queries/media-out.js';
export { sendAsset, sendFile } from './send-asset.js';
export { OneFile, uploadOf } from './uploads.js';
export { takeUpload } from './use-cases/take-upload.js';
export { clearUnusedFiles, dropAssets, dropBytes } from './use-cases/clear-unused.js';
export { addAsset, addPieceFile, type FileOwner, type Upload, claimFiles, claimForPiece } from './use-cases/add-file.js';
export { answerForecast } from './queries/forecast.js';
export { subjectOfPiece } from './queries/subject-of-piece.js';
export { changePiecePath, stepLeftOut } from './use-cases/change-path.js';
export { assignStep, giveStep, turnDownStep } from './use-cases/assign-step.js';
export { setChecklist } from './use-cases/set-checklist.js';
export { takeWith } from './use-cases/take-with.js';
export { giveFirst } from './use-cases/give-first.js';
export { createPiece, type NewPiece, pieceMade } from './use-cases/create-piece.js';
export { putAway } from './use-cases/put-away.js';
export { linkRequest, unlinkMerged } from './use-cases/link-request.js';
export { bringBack } from './use-cases/bring-back.js';
export {
  acceptStep,
  addWork,
  beginInTurn,
  beginStep,
  handBack,
  handIn,
  sayRemaining,
  tickLine,
  type StepRefused,
} from './use-cases/do-step.js';
export { tellNext } from './use-cases/tell-next.js';
export { editContent, saveContent } from './use-cases/edit-content.js';
export { editPiece } from './use-cases/edit-piece.js';
export { storedAim, tellAimMoved } from './use-cases/tell-aim-moved.js';
export { appendSignOff, openRound } from './use-cases/open-round.js';

@Module({
  controllers: [
    AlongController,
    CopyController,
    SheetController,
    PiecesController,
    PathController,
    PieceUploadsController,
    StepsController,
    ToMakeController,
    VersionsController,
  ],
})
export class ProductionModule implements OnModuleInit {
  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
  ) {}

  onModuleInit(): void {
    this.jobs.register('clear_unused_files', async () => void (await clearUnusedFiles(this.app)), '41 3 * * *');
  }
}
