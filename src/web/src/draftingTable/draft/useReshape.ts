import { notifications } from '@mantine/notifications';
import { answered, type Problem } from '../../api/client';
import { reshapeDraft, type Reshape } from '../../api/generated';
import type { SharedDraft } from './sharedDraft';

/** Makes a change that rules, examples, forms and records follow; one edit, to be undone as one. Nothing is changed where it cannot be. */
export function useReshape(shared: SharedDraft): (reshape: Reshape) => Promise<void> {
  return async (reshape) => {
    try {
      shared.change(await answered(reshapeDraft({ body: { draft: shared.present().definition, reshape } })));
    } catch (refusal) {
      const { title, detail } = refusal as Problem;
      notifications.show({ color: 'red', message: [title, detail].filter(Boolean).join(' ') });
    }
  };
}
