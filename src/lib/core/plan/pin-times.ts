/** When pinned targets are meant to be met. */
import type { Form } from '../chart/unroll';
import { beatsOf } from '../line/model';
import { pushOf } from '../line/read';
import { pinsOf } from './edits';
import type { PinTime, Plan } from './model';

/** Beats by which a target stands off its change: half a pulse where it is pinned early or late. */
export function pinShift(when: PinTime | undefined, form: Form): number {
  const push = beatsOf(pushOf(form));
  return when === 'early' ? -push : when === 'late' ? push : 0;
}

/** Targets with the beats at which they are meant: their own where it is kept, else as the plan pins them, else with their change. */
export function meantTargets<Target extends { readonly change: number; readonly at?: number | undefined }>(
  targets: readonly Target[],
  plan: Plan,
  form: Form
): (Target & { readonly at: number })[] {
  const shifts = new Map(
    pinsOf(plan).flatMap(({ change, beat, when }) =>
      (beat ?? 1) === 1 ? [[change, pinShift(when, form)] as const] : []
    )
  );
  return targets.map((target) => ({
    ...target,
    at: target.at ?? (form.changes[target.change]?.start ?? 0) + (shifts.get(target.change) ?? 0)
  }));
}
