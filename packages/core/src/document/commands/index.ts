export { addDimension, deleteDimension, nameFault, renameDimension, setDimension } from './dimensions.ts';
export { addPart, deletePart, renameDesign, renamePart, setMaterial, setUnits } from './parts.ts';
export { editSketch } from './sketch.ts';
export {
  addStep,
  changeStep,
  copySketch,
  deleteStep,
  moveStep,
  renameStep,
  suppressStep,
  usersOfStep,
} from './steps.ts';
