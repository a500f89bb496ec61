import { OpenDraft } from '../draftingTable/draft/OpenDraft';
import { FormSheet } from './FormSheet';

/** The forms of a record type. */
export const Forms = () => <OpenDraft sheet="Forms">{(drawing) => <FormSheet {...drawing} />}</OpenDraft>;
