// What is done when a car comes back, and how one corner of it came.
import type { Schemas } from '../../api/client';

export type Act = Schemas['AfterAct'];
export type Corner = Schemas['CornerBack'];
