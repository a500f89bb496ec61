import { OpenDraft } from '../draftingTable/draft/OpenDraft';
import { FieldSheet } from './FieldSheet';

/** The fields of a record type. */
export const Fields = () => <OpenDraft sheet="Fields">{(drawing) => <FieldSheet {...drawing} />}</OpenDraft>;
