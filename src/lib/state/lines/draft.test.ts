import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { fakeStorage } from '$lib/testing/storage';
import { noteOf } from '$lib/core/line/model';
import { draftOf, keepDraft, takeUpDraft, type LineDraft } from './draft';

const storage = fakeStorage();
const { kept } = storage;
beforeEach(() => {
  kept.clear();
  vi.stubGlobal('localStorage', storage);
});
afterEach(() => vi.unstubAllGlobals());

const line = (name: string): LineDraft => ({ name, id: null, notes: [noteOf(0, 480, 61)] });

describe('a line that is being written', () => {
  it('is each window’s own', () => {
    keepDraft('chart', line('mine'), 'one');
    keepDraft('chart', line('yours'), 'two');
    expect([draftOf('chart', 'one')!.name, draftOf('chart', 'two')!.name]).toEqual(['mine', 'yours']);
    keepDraft('chart', null, 'one');
    expect([draftOf('chart', 'one'), draftOf('chart', 'two')!.name]).toEqual([null, 'yours']);
  });

  it('is taken up from a window that is gone, once, and never from one that is open', () => {
    keepDraft('chart', line('left behind'), 'gone');
    keepDraft('chart', line('open elsewhere'), 'open');
    expect(takeUpDraft('chart', new Set(['open']), 'new')!.name).toBe('left behind');
    expect(draftOf('chart', 'new')!.name).toBe('left behind');
    expect(takeUpDraft('chart', new Set(['open', 'new']), 'newer')).toBeNull();
    expect(takeUpDraft('other', new Set(), 'newer')).toBeNull();
  });

  it('of an older version, without a window, is taken up too; one that cannot be read is left', () => {
    kept.set('corvel-line:chart:broken', '{');
    kept.set('corvel-line:chart', JSON.stringify(line('older')));
    expect(takeUpDraft('chart', new Set(), 'new')!.name).toBe('older');
    expect([...kept.keys()].sort()).toEqual(['corvel-line:chart:broken', 'corvel-line:chart:new']);
  });
});
