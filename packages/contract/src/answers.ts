import type { BookAnswers } from './book/operations';
import type { JobAnswers } from './care/jobOperations';
import type { NoteAnswers } from './level/noteOperations';
import type { ShapeAnswers } from './level/shapeOperations';
import type { CareAnswers } from './care/operations';
import type { FitAnswers } from './fit/operations';
import type { FleetAnswers } from './fleet/operations';
import type { ErrorAnswer } from './kit/fields';
import type { LevelAnswers } from './level/operations';
import type { ScanAnswers } from './machines/operations';
import type { PeopleAnswers } from './people/operations';
import type { RuleAnswers } from './rounds/operations';
import type { ShopAnswers } from './shop/operations';
import type { SettingsAnswers } from './shop/settingsOperations';
import type { SurfaceAnswers } from './surfaces/operations';
import type { WearAnswers } from './wear/operations';

/** What every operation answers, by its id, and how all are refused. `npm run describe` makes the schemas of answers from it. */
export interface Answers
  extends
    BookAnswers,
    JobAnswers,
    CareAnswers,
    FitAnswers,
    FleetAnswers,
    LevelAnswers,
    NoteAnswers,
    ShapeAnswers,
    ScanAnswers,
    PeopleAnswers,
    RuleAnswers,
    ShopAnswers,
    SettingsAnswers,
    SurfaceAnswers,
    WearAnswers {
  refused: ErrorAnswer;
}
