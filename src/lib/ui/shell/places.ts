/** What stands over all charts, in the order of the day. */
import BookMarked from '@lucide/svelte/icons/book-marked';
import CalendarCheck from '@lucide/svelte/icons/calendar-check';
import Library from '@lucide/svelte/icons/library';
import WalletCards from '@lucide/svelte/icons/wallet-cards';

export const PLACES = [
  { id: 'songbook', name: 'Songbook', href: '/', hint: 'Songbook: all charts', icon: Library },
  { id: 'today', name: 'Today', href: '/today', hint: 'Today: what to practise', icon: CalendarCheck },
  { id: 'cards', name: 'Cards', href: '/trainer', hint: 'Cards: a two-minute round', icon: WalletCards },
  {
    id: 'licks',
    name: 'Lick book',
    href: '/licks',
    hint: 'Lick book: licks over all charts',
    icon: BookMarked
  }
] as const;

export type Place = (typeof PLACES)[number]['id'];
