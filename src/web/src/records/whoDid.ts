import { authors, type Meanwhile } from './meanwhile';

/** Who saved a record meanwhile, by name; the person who is told is “You, elsewhere”. A publication is nobody's save. */
export function whoDid(meanwhile: Meanwhile, person: string, nameOf: (userName: string) => string): string {
  const names = authors(meanwhile).map((by) => (by === person ? 'You, elsewhere,' : nameOf(by)));
  return names.join(' and ') || 'A publication';
}
