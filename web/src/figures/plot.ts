// Axes, ticks and paths of every plot: d3's, in one place.
import { range, ticks as niceTicks, tickStep } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { line as pathOf } from 'd3-shape';

/** A scale from values to drawing units. */
export const scale = (from: [number, number], to: [number, number]) => scaleLinear(from, to);

/** About so many round values between two ends, ends in when they are round; never a negative zero. */
export const ticks = (low: number, high: number, about: number): number[] =>
  niceTicks(low, high, about).map((v) => v + 0);
/** The step of those values. */
export const stepOf = (low: number, high: number, about: number): number => tickStep(low, high, about);

/** Every multiple of a step between two ends. */
export const every = (low: number, high: number, step: number): number[] =>
  range(Math.ceil(low / step - 1e-9), Math.floor(high / step + 1e-9) + 1).map((i) => i * step + 0);

/** An open path through points, drawing units to a tenth. */
export const path = (points: [number, number][]): string => pathOf().digits(1)(points) ?? '';
/** A closed one. */
export const ring = (points: [number, number][]): string => (points.length ? `${path(points)}Z` : '');
