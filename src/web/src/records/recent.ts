/** A record that somebody had open at this browser. */
export interface Recent {
  id: number;
  recordType: string;
  title: string;
}

const name = 'dibujo recent';
const most = 6;

/** The records opened last, the latest first. */
export function recentRecords(): Recent[] {
  try {
    const kept = JSON.parse(localStorage.getItem(name) ?? '[]') as Recent[];
    return Array.isArray(kept) ? kept : [];
  } catch {
    return [];
  }
}

/** Notes that a record has been opened. */
export function noteOpened(record: Recent) {
  try {
    localStorage.setItem(name, JSON.stringify([record, ...recentRecords().filter(({ id }) => id !== record.id)].slice(0, most)));
  } catch {
    // A full shelf keeps nothing.
  }
}
