import { OpenDraft } from '../draftingTable/draft/OpenDraft';
import { ExchangeSheet } from './ExchangeSheet';

/** What goes in and out of a record type as files. */
export const Exchange = () => <OpenDraft sheet="Exchange">{(drawing) => <ExchangeSheet {...drawing} />}</OpenDraft>;
