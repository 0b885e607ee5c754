/**
 * What the designer is in the middle of, the newest on top: a sketch, a tool in
 * hand, a sentence being filled, a pick that is waited for. Each mode has its
 * own keys; Escape ends the newest, one at a time.
 */
import { defineStore } from 'pinia';
import { computed, shallowRef, type WritableComputedRef } from 'vue';
import type { ChangeKind } from '../sketch/changing.ts';

export interface ModeValues {
  /** The step at which one stands in the recipe: what comes later is not there yet, and new steps go after it. */
  stand: string;
  /** The sketch open for drawing. */
  sketch: string;
  /** The drawing tool in hand, by name. */
  tool: string;
  /** A change of the open sketch that is under way. */
  change: ChangeKind;
  /** The kind of step that was said before what it is made of is picked. */
  say: string;
  /** The step whose sentence is being filled. */
  fill: string;
  /** A slot that takes picks from the stage. */
  pick: { readonly step: string; readonly slot: string };
  /** The dimension whose trace is shown. */
  trace: string;
  /** Numbers are tried before they are kept. */
  try: true;
  /** The variant being looked at. */
  variant: string;
  /** What lies under the pointer is listed. */
  stack: true;
  /** The dials over their ranges, in place of the stage. */
  flex: true;
  /** The joint whose sentence is being filled. */
  join: string;
  /** The face whose frames alone are offered, by its body on the stage and its number there. */
  face: { readonly body: string; readonly index: number };
  /** Parts of another design are looked at as they are there now. */
  guest: string;
  /** The instance of which the home is being moved. */
  home: string;
  /** What was done is listed, in place of the recipe. */
  history: true;
}
export type ModeKind = keyof ModeValues;
export type Mode = { [K in ModeKind]: { readonly kind: K; readonly value: ModeValues[K] } }[ModeKind];

/** What a mode does at its keys; false, or nothing there, leaves a key to the mode below. */
export interface ModeKeys {
  escape?(): unknown;
  enter?(): unknown;
  /** Before something is undone; unless false, that was the undoing. */
  undo?(): unknown;
  key?(event: KeyboardEvent): boolean;
}

/** Modes that end with the one they stand upon. */
const UPON: Readonly<Partial<Record<ModeKind, ModeKind>>> = { tool: 'sketch', change: 'sketch' };

export const useModes = defineStore('modes', () => {
  const stack = shallowRef<readonly Mode[]>([]);
  const keys = new Map<ModeKind, ModeKeys>();

  function valueOf<K extends ModeKind>(kind: K): ModeValues[K] | null {
    return (stack.value.find((m) => m.kind === kind)?.value as ModeValues[K] | undefined) ?? null;
  }

  /** Go into a mode; one of its kind that is there already goes on with this value. */
  function enter<K extends ModeKind>(kind: K, value: ModeValues[K]): void {
    const mode = { kind, value } as Mode;
    const there = stack.value.some((m) => m.kind === kind);
    stack.value = there ? stack.value.map((m) => (m.kind === kind ? mode : m)) : [...stack.value, mode];
  }

  function leave(kind: ModeKind): void {
    if (!stack.value.some((m) => m.kind === kind)) return;
    stack.value = stack.value.filter((m) => m.kind !== kind && UPON[m.kind] !== kind);
  }

  /** A mode as a value that is null when one is not in it. */
  function slot<K extends ModeKind>(kind: K): WritableComputedRef<ModeValues[K] | null> {
    return computed({
      get: () => valueOf(kind),
      set: (value) => (value === null ? leave(kind) : enter(kind, value)),
    });
  }

  /** Say what a mode does at its keys. */
  function handle(kind: ModeKind, does: ModeKeys): void {
    keys.set(kind, does);
  }

  const fromTop = () => [...stack.value].reverse();
  const ask = (what: (does: ModeKeys, kind: ModeKind) => boolean) =>
    fromTop().some(({ kind }) => what(keys.get(kind) ?? {}, kind));

  return {
    stack,
    slot,
    enter,
    leave,
    handle,
    /** One level back, never more; a mode that says nothing of it is left. */
    escape: (): boolean =>
      ask((does, kind) => {
        if (does.escape) return does.escape() !== false;
        leave(kind);
        return true;
      }),
    confirm: (): boolean => ask((does) => does.enter !== undefined && does.enter() !== false),
    undo: (): boolean => ask((does) => does.undo !== undefined && does.undo() !== false),
    key: (event: KeyboardEvent): boolean => ask((does) => does.key?.(event) ?? false),
  };
});
