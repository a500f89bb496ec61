import { Drawn } from '../draftingTable/draft/Drawn';
import { WorkflowSheet } from './WorkflowSheet';

/** The workflows of a record type, and the roles that make their moves. */
export const Workflows = () => <Drawn sheet="Workflow">{(drawing) => <WorkflowSheet {...drawing} />}</Drawn>;
