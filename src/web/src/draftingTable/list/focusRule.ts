/** Gives a rule of the list the keyboard once it is drawn. */
export const focusRule = (rule: string) =>
  window.setTimeout(() =>
    document.querySelector<HTMLElement>(`[data-rule="${CSS.escape(rule)}"] [data-rule-itself]`)?.focus({ preventScroll: true }),
  );
