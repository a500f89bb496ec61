import { Drawn } from '../draftingTable/draft/Drawn';
import { ExchangeSheet } from './ExchangeSheet';

/** What goes in and out of a record type as files. */
export const Exchange = () => <Drawn sheet="Exchange">{(drawing) => <ExchangeSheet {...drawing} />}</Drawn>;
