/** When pinned targets are meant to be met. */
import type { Form } from '../chart/unroll';
import { beatsOf } from '../line/model';
import { pushOf } from '../line/read';
import type { PinTime } from './model';

/** Beats by which a target stands off its change: half a pulse where it is pinned early or late. */
export function pinShift(when: PinTime | undefined, form: Form): number {
  const push = beatsOf(pushOf(form));
  return when === 'early' ? -push : when === 'late' ? push : 0;
}
