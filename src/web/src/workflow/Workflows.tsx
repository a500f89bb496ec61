import { OpenDraft } from '../draftingTable/draft/OpenDraft';
import { WorkflowSheet } from './WorkflowSheet';

/** The workflows of a record type, and the roles that make their moves. */
export const Workflows = () => <OpenDraft sheet="Workflow">{(drawing) => <WorkflowSheet {...drawing} />}</OpenDraft>;
