import { afterEach, expect, it, vi } from 'vitest';
import { keepVisited, visited } from './visited';

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

it('a page is kept once it is rested on, the last one when the window is hidden', () => {
  vi.useFakeTimers();
  const kept: unknown[] = [];
  let hide = () => undefined as void;
  vi.stubGlobal('navigator', {
    serviceWorker: { controller: { postMessage: (news: unknown) => void kept.push(news) } }
  });
  vi.stubGlobal('document', {
    visibilityState: 'hidden',
    addEventListener: (_: string, heard: () => void) => (hide = heard),
    removeEventListener: () => undefined
  });
  keepVisited();
  visited('/charts/quay');
  vi.advanceTimersByTime(2000);
  visited('/charts/quay');
  vi.advanceTimersByTime(2000);
  expect(kept).toEqual([]);
  vi.advanceTimersByTime(1000);
  expect(kept).toEqual([{ keep: '/charts/quay' }]);
  visited('/charts/pier');
  hide();
  hide();
  expect(kept.slice(1)).toEqual([{ keep: '/charts/pier' }]);
});
