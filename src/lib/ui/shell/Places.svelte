<!-- The places over all charts: at the left of the head; on a phone at the foot of the page, where a thumb is. -->
<script lang="ts">
  import { button } from '../kit/button';
  import { PLACES, type Place } from './places';

  interface Props {
    /** Where one is. */
    at: Place | null;
    /** With their names, where there is room. */
    isNamed?: boolean;
  }
  let { at, isNamed = false }: Props = $props();
</script>

<nav
  class="flex places shrink-0 max-sm:fixed max-sm:inset-x-0 max-sm:bottom-0 max-sm:z-20 max-sm:border-t max-sm:border-edge max-sm:bg-surface sm:gap-0.5"
  aria-label="Places"
>
  {#each PLACES as { id, name, href, hint, icon: Icon } (id)}
    <a
      class="{button({
        tone: id === at ? 'strong' : 'quiet',
        class: isNamed ? '' : 'sm:w-8.5 sm:px-0'
      })} max-sm:min-h-12 max-sm:flex-1 max-sm:flex-col max-sm:gap-0 max-sm:rounded-none max-sm:px-0 max-sm:text-2xs"
      {href}
      data-go={id}
      aria-label={name}
      aria-current={id === at ? 'page' : undefined}
      data-hint={hint}
      ><Icon size={17} /><span class={isNamed ? 'max-lg:sm:hidden' : 'sm:hidden'}>{name}</span></a
    >
  {/each}
</nav>
