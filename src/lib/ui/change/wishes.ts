/** How a target can be led into, as options to choose from. */
import { sure } from '$lib/core/base/list';
import { APPROACH_FACTS, APPROACH_KINDS } from '$lib/core/line/approach-notes';
import type { ApproachNoteWish } from '$lib/core/plan/model';
import type { Option } from '../kit/options';

export const WISHES: readonly Option<ApproachNoteWish>[] = [
  { value: 'none', name: 'no approach note' },
  { value: 'fitting', name: 'whatever fits', hint: 'The kind that suits each target best' },
  ...APPROACH_KINDS.map((kind) => ({
    value: kind,
    name: APPROACH_FACTS[kind].name,
    hint: APPROACH_FACTS[kind].hint
  }))
];

export const wishName = (wish: ApproachNoteWish): string =>
  sure(
    WISHES.find(({ value }) => value === wish),
    'WISHES'
  ).name;
