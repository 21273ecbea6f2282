// What a member is, in words.
import type { Schemas } from '../api/client';

export type Role = Schemas['Role'];

export const roles: { value: Role; title: string; does: string }[] = [
  { value: 'owner', title: 'Owner', does: 'whole shop, its people, the record' },
  { value: 'specialist', title: 'Specialist', does: 'plans, sets, opens gates, proves' },
  { value: 'apprentice', title: 'Apprentice', does: 'reads and sets; a specialist opens gates' },
  { value: 'front_desk', title: 'Front desk', does: 'arrivals, handovers' },
];

export const roleOf = (r: Role) => roles.find((x) => x.value === r) ?? roles[1]!;
