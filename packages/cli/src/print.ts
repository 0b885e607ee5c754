import type { Inspection } from '@helb/core';

/** The inspection as text for a terminal. */
export function printInspection(inspection: Inspection): void {
  console.log(inspection.name);
  for (const d of inspection.dimensions) {
    const expression = d.expression === d.shown ? '' : `  = ${d.expression}`;
    console.log(
      `  ${d.path.padEnd(36)} ${(d.error ? '?' : d.shown).padStart(14)}${expression}${d.error ? `  ! ${d.error}` : d.doubt ? `  ? ${d.doubt}` : ''}`,
    );
  }
  for (const part of inspection.parts) {
    console.log(`\n${part.name}${part.mass_kg === null ? '' : `, ${part.mass_kg.toFixed(4)} kg of ${part.material}`}`);
    for (const step of part.steps) {
      const sketch = part.sketches.find((s) => s.step === step.id);
      const state = !sketch
        ? ''
        : sketch.settled
          ? ', settled'
          : sketch.solved
            ? `, ${sketch.freedoms} freedoms`
            : ', clashing';
      console.log(
        `  ${step.status === 'failed' ? '✗' : step.status === 'suppressed' ? '–' : '✓'} ${step.name} (${step.kind}${state})${step.message ? `: ${step.message}` : ''}`,
      );
      for (const doubt of step.doubts) console.log(`    ? ${doubt}`);
    }
    for (const body of part.bodies) {
      const { min, max } = body.box_mm;
      const size = max.map((v, i) => Number((v - min[i]!).toFixed(3))).join(' × ');
      console.log(
        `  ${body.name}: ${body.volume_mm3.toFixed(3)} mm³, ${size} mm, ${body.faces.length} faces${body.valid ? '' : ', NOT SOUND'}`,
      );
    }
  }
  for (const own of inspection.assemblies) printAssembly(own);
}

function printAssembly({ name, freedoms, faults, doubts, members, joints }: Inspection['assemblies'][number]): void {
  const state =
    freedoms === null
      ? 'its joints are not met'
      : freedoms === 0
        ? 'all held'
        : `${freedoms} freedom${freedoms === 1 ? '' : 's'}`;
  console.log(`\n${name}, ${members.length} parts, ${state}`);
  for (const fault of faults) console.log(`  ✗ ${fault}`);
  for (const doubt of doubts) console.log(`  ? ${doubt}`);
  for (const m of members)
    console.log(
      `  ${m.name} at ${m.at_mm.map((n) => Number(n.toFixed(3)) + 0).join(', ')} mm${m.fixed ? ', fixed' : ''}`,
    );
  for (const j of joints) {
    const misses = j.misses === null ? '' : `, misses by ${j.misses.toFixed(3)} mm`;
    console.log(`  ${j.status === 'met' ? '✓' : '✗'} ${j.name} (${j.kind}: ${j.between.join(' with ')}${misses})${j.message ? `: ${j.message}` : ''}`); // prettier-ignore
  }
}
