import { Drawn } from '../draftingTable/draft/Drawn';
import { FieldSheet } from './FieldSheet';

/** The fields of a record type. */
export const Fields = () => <Drawn sheet="Fields">{(drawing) => <FieldSheet {...drawing} />}</Drawn>;
