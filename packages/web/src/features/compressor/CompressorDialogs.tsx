import type {
  CompressorView,
  MeasurementView,
  PlanView,
  ReadingView,
  SiteView,
  StandingView,
  VesselView,
} from '@entretien/contracts';
import type { CheckDefinition } from '@entretien/core/checks';
import type { VesselExamination } from '@entretien/core/plan';
import type { CompressorFacts } from '../../data/queries.js';
import { MeasureDialog } from './checks/MeasureDialog.js';
import { EditPlateDialog } from './EditPlateDialog.js';
import { EstimateHoursDialog } from './EstimateHoursDialog.js';
import { MoveDialog } from './MoveDialog.js';
import { DeferDialog } from './DeferDialog.js';
import { ReadHoursDialog } from './ReadHoursDialog.js';
import { RecordServiceDialog } from './RecordServiceDialog.js';
import { StartingPointsDialog } from './StartingPointsDialog.js';
import { AddVesselDialog, ExamineVesselDialog } from './VesselDialogs.js';
import { WhyDialog } from './why/WhyDialog.js';

/** Which dialog of a unit's page floats, and what it is about. */
export type OpenDialog =
  | { readonly dialog: 'plate' | 'move' | 'estimate' | 'starting-points' | 'vessel' }
  | { readonly dialog: 'read'; readonly corrects?: ReadingView | undefined }
  | { readonly dialog: 'service'; readonly tasks: readonly string[] }
  | { readonly dialog: 'why' | 'put-off'; readonly task: string }
  | { readonly dialog: 'examine'; readonly vessel: VesselView; readonly examination: VesselExamination }
  | {
      readonly dialog: 'measure';
      readonly check?: CheckDefinition | undefined;
      readonly corrects?: MeasurementView | undefined;
    };

interface CompressorDialogsProps {
  readonly open: OpenDialog;
  readonly unit: CompressorView;
  readonly site: SiteView | undefined;
  readonly facts: CompressorFacts;
  readonly standing: StandingView;
  readonly plan: PlanView;
  readonly timeZone: string;
  readonly onOpen: (open: OpenDialog) => void;
  readonly onClose: () => void;
  readonly onChangePlan: (task: string) => void;
}

/** The one dialog that is open. */
export function CompressorDialogs(props: CompressorDialogsProps) {
  const { open, unit, site, facts, standing, plan, timeZone, onOpen, onClose, onChangePlan } = props;
  const shared = { compressorId: unit.id, tag: unit.tag, facts, standing, timeZone, onClose };
  switch (open.dialog) {
    case 'read':
      return <ReadHoursDialog {...shared} corrects={open.corrects} />;
    case 'estimate':
      return <EstimateHoursDialog {...shared} unit={unit} />;
    case 'service':
      return <RecordServiceDialog {...shared} unit={unit} plan={plan} chosen={open.tasks} />;
    case 'measure':
      return (
        <MeasureDialog
          unit={unit}
          site={site}
          facts={facts}
          timeZone={timeZone}
          check={open.check}
          corrects={open.corrects}
          onClose={onClose}
        />
      );
    case 'plate':
      return <EditPlateDialog unit={unit} timeZone={timeZone} onClose={onClose} />;
    case 'move':
      return <MoveDialog unit={unit} timeZone={timeZone} onClose={onClose} />;
    case 'starting-points':
      return <StartingPointsDialog {...shared} plan={plan} />;
    case 'vessel':
      return <AddVesselDialog unit={unit} timeZone={timeZone} onClose={onClose} />;
    case 'examine':
      return (
        <ExamineVesselDialog
          vessel={open.vessel}
          examination={open.examination}
          timeZone={timeZone}
          onClose={onClose}
        />
      );
    case 'why':
    case 'put-off': {
      const task = standing.tasks.find(({ code }) => code === open.task);
      if (!task) return null;
      return open.dialog === 'put-off' ? (
        <DeferDialog
          compressorId={unit.id}
          task={task}
          standing={standing}
          timeZone={timeZone}
          onClose={onClose}
        />
      ) : (
        <WhyDialog
          task={task}
          standing={standing}
          timeZone={timeZone}
          onClose={onClose}
          onDefer={() => onOpen({ dialog: 'put-off', task: task.code })}
          onRecord={() => onOpen({ dialog: 'service', tasks: [task.code] })}
          onChangePlan={() => onChangePlan(task.code)}
        />
      );
    }
  }
}
