/** Something that can be chosen. */
export interface Offer {
  value: string;
  label: string;
}

/** What a text can mean of what is offered: what is called so, or the only one with that in its label, as it is left on the screen. */
export function only(offers: Offer[], text: string): Offer | undefined {
  const folded = text.trim().toLowerCase();
  if (folded === '') {
    return undefined;
  }
  const called = offers.filter(({ label }) => label.trim().toLowerCase() === folded);
  const alike = called.length > 0 ? called : offers.filter(({ label }) => label.toLowerCase().includes(folded));
  return alike.length === 1 ? alike[0] : undefined;
}
