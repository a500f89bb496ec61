/** The parts of values that have some. */
const parts = {
  fullName: [
    { key: 'given', label: 'Given name' },
    { key: 'family', label: 'Family name' },
  ],
  address: [
    { key: 'street', label: 'Street' },
    { key: 'postalCode', label: 'Postal code' },
    { key: 'city', label: 'City' },
    { key: 'country', label: 'Country' },
  ],
};

const none: never[] = [];

/** The parts of a value of that type; none for one without. */
export const partsOf = (kind: string | undefined): { key: string; label: string }[] =>
  kind !== undefined && kind in parts ? parts[kind as keyof typeof parts] : none;
