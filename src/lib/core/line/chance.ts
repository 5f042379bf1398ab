/** Chance that can be had again: the same numbers give the same sequence. */

import { firstOf, nth } from '../base/list';

/** Numbers from 0 up to 1, one after another. */
export type Chance = () => number;

/** A sequence that depends on every one of the whole numbers it is made from, and on nothing else. */
export function chanceOf(...seeds: readonly number[]): Chance {
  let state = seeds.reduce((mixed, seed) => scrambled(mixed ^ scrambled(Math.trunc(seed) + 0x9e3779b9)), 1);
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    return scrambled(state) / 2 ** 32;
  };
}

/** The finisher of a well-known hash of 32 bits: every bit of the input moves every bit of the output. */
function scrambled(number: number): number {
  let mixed = number ^ (number >>> 16);
  mixed = Math.imul(mixed, 0x85ebca6b);
  mixed ^= mixed >>> 13;
  mixed = Math.imul(mixed, 0xc2b2ae35);
  return (mixed ^ (mixed >>> 16)) >>> 0;
}

/** One of some things, each as likely as another. */
export function oneOf<T>(chance: Chance, things: readonly T[]): T {
  return nth(things, Math.floor(chance() * things.length));
}

/** The first half of the time the first, which is the plain one; else one of the others. */
export function oftenFirst<T>(chance: Chance, things: readonly T[]): T {
  return things.length < 2 || chance() < 0.5 ? firstOf(things) : oneOf(chance, things.slice(1));
}
