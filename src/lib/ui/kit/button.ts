/** How buttons look: one table of sizes and tones. On a touch screen every one of them is as large as a finger. */
import { tv, type VariantProps } from 'tailwind-variants';

export const button = tv({
  base: 'inline-flex items-center justify-center gap-1.5 rounded-md border border-edge bg-surface text-ink whitespace-nowrap hover:not-disabled:border-ink disabled:opacity-55 pointer-coarse:min-h-11 pointer-coarse:min-w-11 aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-paper',
  variants: {
    size: {
      /** Inside a drawing's head. */
      small: 'min-h-6 px-2 text-xs',
      normal: 'min-h-8.5 px-2.5',
      /** Under a guitar: a thumb finds it. */
      stand: 'min-h-11 min-w-11 px-3'
    },
    tone: {
      plain: '',
      strong: 'border-ink bg-ink text-paper',
      /** No frame until it is looked at. */
      quiet: 'border-transparent bg-transparent',
      target: 'border-target bg-target text-on-target',
      /** The one that records. */
      record: 'border-warn bg-warn text-paper'
    },
    isIcon: { true: 'px-0' },
    isRound: { true: 'rounded-full' }
  },
  compoundVariants: [
    { isIcon: true, size: 'small', class: 'w-6' },
    { isIcon: true, size: 'normal', class: 'w-8.5' }
  ],
  defaultVariants: { size: 'normal', tone: 'plain' }
});

export type ButtonLook = Omit<VariantProps<typeof button>, 'isIcon'>;
