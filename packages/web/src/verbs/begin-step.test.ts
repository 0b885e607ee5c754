import 'fake-indexeddb/auto';
import {
  addPart,
  applyEdit,
  declareStep,
  deletePart,
  emptyDesign,
  kindOf,
  registerStep,
  renameDesign,
  setSlot,
  type StepKind,
} from '@helb/core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { useDesign } from '../design/design-store.ts';
import { outbox } from '../design/outbox.ts';
import { useSession, type Pick } from '../design/session.ts';
import { StandInServer, until } from '../design/stand-in-server.ts';
import { useFilling } from '../slots/filling.ts';
import { useVerbs } from './verbs.ts';

// A kind the page has never heard of; its slots are of kinds it knows.
const sketchPlane = { datum: 'floor' };
registerStep(
  declareStep({
    kind: 'toy', version: 1, label: 'Toy', key: 'q', says: 'A toy.',
    slots: { where: kindOf({ kind: 'sketch' }).slots.plane!, axis: kindOf({ kind: 'revolve' }).slots.axis! },
    begin: ({ picks }) => (picks[0]?.kind === 'edge' ? { where: sketchPlane, axis: { edge: picks[0].ref } } : null),
    sentence: () => ['Toy on', { slot: 'where' }, 'about', { slot: 'axis' }],
    make: () => ({ made: [], used: [] }),
  }) as unknown as StepKind,
); // prettier-ignore

let server: StandInServer;
const edge = { faces: ['x:side:a', 'x:end'], near: [0, 0, 0] as [number, number, number] };
const picked: Pick = { kind: 'edge', body: 'x', edge: 0, ref: edge, curve: 'line', label: 'an edge' };

async function opened() {
  setActivePinia(createPinia());
  const [design, session] = [useDesign(), useSession()];
  await design.open('one');
  session.openPart('p');
  return { design, session, verbs: useVerbs(), filling: useFilling() };
}

beforeEach(async () => {
  for (const { change } of (await outbox.of('one')).waiting) await outbox.remove('one', change.id);
  const made = applyEdit(emptyDesign('Test'), addPart('p', 'Part'));
  server = new StandInServer(made.ok ? made.design : emptyDesign('Test'));
  globalThis.fetch = server.fetch as never;
});
afterEach(() => useDesign().close());

async function begun() {
  const page = await opened();
  page.session.picks = [picked];
  page.verbs.partVerbs.value.find((v) => v.id === 'toy')!.run();
  const [id] = page.design.design!.parts.p!.stepOrder;
  return { ...page, id: id! };
}

describe('a step of any kind', () => {
  test('is offered for what it begins from, with its key, and for nothing else', async () => {
    const { session, verbs } = await opened();
    expect(verbs.partVerbs.value.some((v) => v.id === 'toy')).toBe(false);
    session.picks = [picked];
    expect(verbs.partVerbs.value.find((v) => v.id === 'toy')).toMatchObject({ label: 'Toy', key: 'q' });
  });

  test('is begun by being said first, as soon as what is picked is enough', async () => {
    const { design, session, verbs } = await opened();
    verbs.saidFirst.value.find((v) => v.id === 'toy')!.run();
    expect(session.said).toBe('toy');
    session.picks = [{ kind: 'line', sketch: 's', curve: 'l' }];
    verbs.beginSaid();
    expect([session.said, design.attempt]).toEqual(['toy', null]);
    session.picks = [picked];
    verbs.beginSaid();
    expect([session.said, session.picks]).toEqual([null, []]);
    expect(design.design!.parts.p!.steps[session.editing!]).toMatchObject({ kind: 'toy', where: sketchPlane });
    expect(design.kept!.parts.p!.stepOrder).toEqual([]);
  });

  test('says of a pick that none of its slots takes that it is none for it', async () => {
    const { session, verbs } = await opened();
    expect(verbs.unfitForSaid({ kind: 'sketch_point', sketch: 's', point: 'p' })).toBeNull();
    session.said = 'toy';
    expect(verbs.unfitForSaid(picked)).toBeNull();
    expect(verbs.unfitForSaid({ kind: 'sketch_point', sketch: 's', point: 'p' })).toBe('Toy takes no point; pick something else, or drop it with Escape.'); // prettier-ignore
  });

  test('is not offered to be said first where nothing could be picked for it', async () => {
    const { verbs } = await opened();
    expect(verbs.saidFirst.value.some((v) => v.id === 'import')).toBe(false);
  });

  test('is only tried while its sentence is filled: dropped, it leaves no trace', async () => {
    const { design, session, verbs, id } = await begun();
    expect(session.editing).toBe(id);
    expect(design.kept!.parts.p!.stepOrder).toEqual([]);
    expect(design.design!.parts.p!.steps[id]).toMatchObject({ kind: 'toy', name: 'Toy 1' });
    expect(design.edit(setSlot('p', id, 'where', { datum: 'wall' }))).toBeNull();
    verbs.dropStep();
    expect([design.attempt, session.editing]).toEqual([null, null]);
    expect(design.design).toBe(design.kept);
    expect([design.undoCount, server.log.length]).toEqual([0, 0]);
  });

  test('kept, it is one edit with all that was filled in, saved and taken back as one', async () => {
    const { design, verbs, id } = await begun();
    design.edit(setSlot('p', id, 'where', { datum: 'wall' }));
    verbs.keepStep();
    expect(design.attempt).toBeNull();
    expect(design.kept!.parts.p!.steps[id]).toMatchObject({ where: { datum: 'wall' } });
    await until(() => design.saveState === 'saved');
    expect(server.log.map((c) => c.label)).toEqual(['Add Toy 1']);
    await design.undo();
    expect(design.kept!.parts.p!.stepOrder).toEqual([]);
  });

  test('undo while it is filled goes back within it, and then out of it', async () => {
    const { design, id } = await begun();
    design.edit(setSlot('p', id, 'where', { datum: 'wall' }));
    await design.undo();
    expect(design.design!.parts.p!.steps[id]).toMatchObject({ where: sketchPlane });
    await design.undo();
    expect(design.attempt).toBeNull();
  });

  test('goes on upon edits made meanwhile elsewhere, and ends in words when it cannot', async () => {
    const { design, id } = await begun();
    design.follow(renameDesign('Other'));
    expect(design.design!.name).toBe('Other');
    expect(design.design!.parts.p!.steps[id]).toBeDefined();
    design.follow(deletePart('p'));
    expect(design.attempt).toBeNull();
  });

  test('takes picks into the slot that waits for them, by the slot’s kind', async () => {
    const { design, session, filling, id } = await begun();
    filling.awaitPicks(id, 'where');
    expect(filling.waiting.value?.picker?.hint).toMatch(/flat face/);
    expect(filling.give({ kind: 'line', sketch: 's', curve: 'l' })).toBe(false);
    expect(session.notice).toMatch(/^This cannot be the where of Toy 1\. Click/);
    expect(filling.give({ kind: 'datum', datum: 'side' })).toBe(true);
    expect(session.pickingFor).toBeNull();
    expect(design.design!.parts.p!.steps[id]).toMatchObject({ where: { datum: 'side' } });
    filling.awaitPicks(id, 'axis');
    filling.give({ kind: 'line', sketch: 's', curve: 'l' });
    expect(design.design!.parts.p!.steps[id]).toMatchObject({ axis: { sketch: 's', line: 'l' } });
  });
});
