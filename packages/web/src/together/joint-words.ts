/** Joints and mates in words. */
import type { Joint, JointMotion } from '@helb/core';

export type Joining = Joint;
export type JoiningKind = Joint['kind'];

/** What a kind lets happen, as the middle of its sentence. */
export const JOINT_DOES: Readonly<Record<JoiningKind, string>> = {
  rigid: 'is held fast to',
  revolute: 'turns on',
  prismatic: 'slides along',
  cylindrical: 'turns and slides on',
  planar: 'moves flat on',
  spherical: 'swivels in',
  pin_in_slot: 'runs with its pin in',
  screw: 'screws into',
  against: 'lies against',
  on_axis: 'is on the axis of',
  parallel: 'is parallel to',
  square: 'is square to',
  tangent: 'touches',
  angled: 'stands at an angle to',
  at_point: 'meets the point of',
};

/** What it is called in kinematics, or among mates. */
export const JOINT_NAMES: Readonly<Record<JoiningKind, string>> = {
  rigid: 'Rigid',
  revolute: 'Revolute',
  prismatic: 'Prismatic',
  cylindrical: 'Cylindrical',
  planar: 'Planar',
  spherical: 'Spherical',
  pin_in_slot: 'Pin in slot',
  screw: 'Screw',
  against: 'Against or flush',
  on_axis: 'Axis on axis',
  parallel: 'Parallel',
  square: 'Square',
  tangent: 'Tangent',
  angled: 'At an angle',
  at_point: 'Point on point',
};

/** What a joint is called at first. */
export const jointLabel = (a: string, b: string): string => `${b} on ${a}`.slice(0, 80);

export const MOTION_NAMES: Readonly<Record<JointMotion['key'], string>> = {
  slide: 'slide',
  across: 'slide across',
  turn: 'turn',
};
