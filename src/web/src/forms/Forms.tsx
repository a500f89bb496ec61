import { Drawn } from '../draftingTable/draft/Drawn';
import { FormSheet } from './FormSheet';

/** The forms of a record type. */
export const Forms = () => <Drawn sheet="Forms">{(drawing) => <FormSheet {...drawing} />}</Drawn>;
