import type { Schemas } from '../api/client';
export type Alignment = Schemas['Alignment'];
