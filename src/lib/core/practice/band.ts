/** The band: bass, chords, drums and click for one time through an excerpt, as events in beats. No note sounds past its chord. */
import type { Excerpt, ExcerptBar } from '../harmony/excerpt';
import { bassEvents } from './bass';
import { chordEvents } from './comping';
import { drumEvents } from './drums';
import type { SoundEvent } from './events';
import { DRUMS, type Feel } from './feel';
import { pulsesOf } from '../chart/pulses';
import { stageOf, type Pass } from './stage';

/** Everything the band plays over one round of an excerpt, in the order of time. The same pass gives the same events. */
export function bandEvents(pass: Pass): SoundEvent[] {
  const stage = stageOf(pass);
  return [...bassEvents(stage), ...chordEvents(stage), ...drumEvents(stage), ...clicks(pass.excerpt)].sort(
    (a, b) => a.start - b.start
  );
}

/**
 * A bar of clicks in some bar's meter before the start; its times are negative. What walks in four is counted over two bars: halves, then
 * quarters.
 */
export function countIn(bar: Pick<ExcerptBar, 'beats' | 'meter'>, feel?: Feel): SoundEvent[] {
  const own = clicksOf({ ...bar, start: -bar.beats, section: '' });
  if (!feel?.walks || bar.meter.beats !== 4 || bar.meter.unit !== 4) return own;
  const halves = clicksOf({ ...bar, start: -2 * bar.beats, section: '' }).filter((_, i) => i % 2 === 0);
  return [...halves, ...own];
}

function clicks({ bars }: Excerpt): SoundEvent[] {
  return bars.flatMap(clicksOf);
}

/** Every beat of the meter, the bar's first the loudest, then those on which a pulse of several begins. */
function clicksOf(bar: ExcerptBar): SoundEvent[] {
  const { start, beats, meter } = bar;
  const grouped = meter.unit >= 8 ? pulsesOf(bar).map((pulse) => pulse.start) : [];
  return Array.from({ length: meter.beats }, (_, i): SoundEvent => {
    const at = start + (i * beats) / meter.beats;
    const isGroup = grouped.some((pulse) => Math.abs(pulse - at) < 1e-6);
    return {
      part: 'click',
      start: at,
      beats: 0.1,
      midi: i === 0 ? DRUMS.accent : DRUMS.click,
      velocity: i === 0 ? 0.9 : isGroup || grouped.length === 0 ? 0.6 : 0.35
    };
  });
}
