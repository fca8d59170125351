import { MAKERS, MANAGERS, SELVES, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Asset, AssetSize, PictureCut } from './entities/asset.entity.js';
import { PieceReference } from './entities/piece-reference.entity.js';
import { PieceRequest } from './entities/piece-request.entity.js';
import { Piece } from './entities/piece.entity.js';
import { Presence } from './entities/presence.entity.js';
import { Step } from './entities/step.entity.js';
import { StepTick } from './entities/step-tick.entity.js';
import { Upload } from './entities/upload.entity.js';
import { Version } from './entities/version.entity.js';
import { WorkedClient } from './entities/worked-client.entity.js';
import { ProductionModule } from './index.js';
import { findPieces } from './queries/find-pieces.js';

const policies = {
  'desk.read': { roles: MANAGERS },
  'piece.list': { roles: { ...MANAGERS, staff: 'own' } },
  // whose days are seen beside the work
  'line.read': { roles: MANAGERS },
  'piece.read': { roles: MAKERS },
  'piece.edit': { roles: MANAGERS },
  'copy.edit': { roles: MANAGERS },
  'sheet.edit': { roles: MANAGERS },
  'piece.write_content': { roles: { ...MANAGERS, staff: 'assigned', freelance: 'assigned' } },
  'own.steps': { roles: SELVES },
  'step.assign': { roles: MANAGERS },
  'path.change': { roles: MANAGERS },
  'step.do': { roles: { ...MANAGERS, staff: 'assigned', freelance: 'assigned' } },
  'asset.read': { roles: MAKERS },
} as const satisfies Record<string, Policy>;

const owners = {
  piece: 'select client_id, id as piece_id, null::uuid as request_id from pieces where id = $1',
  step: 'select p.client_id, p.id as piece_id, null::uuid as request_id from steps s join pieces p on p.id = s.piece_id where s.id = $1',
  // an idea's file goes where the idea goes, also into the piece that it became; a piece's into those that were begun from it
  asset: `select coalesce(a.client_id, i.client_id, g.client_id) as client_id, coalesce(a.piece_id, i.piece_id, t.piece_id) as piece_id, a.request_id
    from assets a left join ideas i on i.id = a.idea_id left join ideas t on t.id = i.combined_into left join guidelines g on g.id = a.guideline_id where a.id = $1
    union all select p.client_id, r.piece_id, null from assets a left join piece_requests q on q.request_id = a.request_id
      join piece_references r on r.of_piece_id in (a.piece_id, q.piece_id) join pieces p on p.id = r.piece_id where a.id = $1`,
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'production',
  module: ProductionModule,
  entities: [Piece, PieceRequest, PieceReference, Step, StepTick, Version, Asset, AssetSize, PictureCut, Upload, Presence, WorkedClient],
  policies,
  finds: [findPieces],
  owners,
};
