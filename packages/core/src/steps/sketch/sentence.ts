import { isDimension } from '../../sketch/schema.ts';
import { count, type SentencePart } from '../sentence-parts.ts';
import type { SketchStep } from './schema.ts';

export const PLANE_LABELS = { floor: 'the floor plane', wall: 'the wall plane', side: 'the side plane' } as const;

export function sketchSentence(step: SketchStep): SentencePart[] {
  const plane = 'datum' in step.plane ? PLANE_LABELS[step.plane.datum] : 'a face';
  const dimensions = Object.values(step.constraints).filter(isDimension).length;
  return [
    { text: 'Sketch on' },
    { slot: 'plane', kind: 'plane', label: plane },
    { text: 'with' },
    { slot: 'geometry', kind: 'dimensions', label: count(dimensions, 'dimension') },
  ];
}
