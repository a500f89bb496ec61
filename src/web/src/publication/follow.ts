import { answered, type Problem } from '../api/client';
import { readPublication, type PublicationView } from '../api/generated';

const pause = 400;

/** Tells how far a publication is until it is through, and answers with the edition's number; throws its problem where nothing came of it. */
export async function follow(recordType: string, begun: PublicationView, tell: (view: PublicationView) => void): Promise<number> {
  let view = begun;
  tell(view);
  while (view.isRunning) {
    await new Promise((wake) => setTimeout(wake, pause));
    view = await answered(readPublication({ path: { key: recordType } }));
    tell(view);
  }
  if (view.number == null) {
    throw { title: 'Nothing was published.', detail: view.failure } as Problem;
  }
  return view.number;
}
