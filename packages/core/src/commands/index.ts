export {
  addAssembly,
  deleteAssembly,
  markInstances,
  moveInstances,
  placeInstances,
  removeInstances,
  renameAssembly,
  type InstanceMarks,
} from './assembly.ts';
export {
  addCoupling,
  addJoint,
  changeJoint,
  keepPose,
  removeCoupling,
  removeJoints,
  setJointNumber,
} from './joints.ts';
export { mirrorWork, type MirrorWork } from './mirror.ts';
export { setAppearance, tellPartsApart } from './appearance.ts';
export {
  addDimension,
  deleteDimension,
  nameFault,
  rangeOf,
  readTyped,
  renameDimension,
  setDimension,
  setDimensions,
  tryDimensions,
} from './dimensions.ts';
export {
  addMeasured,
  describeDimensions,
  keepReadings,
  linkNumbers,
  makeDial,
  moveDimensions,
  type Described,
} from './ledger.ts';
export { addPart, deletePart, renameDesign, renamePart, setMaterial, setUnits } from './parts.ts';
export { bodyToPart, copySteps, groupSteps, replaceSketch, stepWithRests } from './recipe.ts';
export {
  editShared,
  faultOfShared,
  followProject,
  giveToProject,
  ledgerDesign,
  withShared,
  withTitleField,
} from './shared.ts';
export { followGuest, loosenGuests, takeGuests } from './guests.ts';
export { guestBundle, type GuestBundle, type GuestWanted } from './guest-bundle.ts';
export { setCell, setColumn } from './columns.ts';
export { addPointToRun, addRun, changeRun, driveInRun, dropPointFromRun, removeRun } from './runs.ts';
export { deleteSection, keepSection } from './sections.ts';
export { editSketch } from './sketch.ts';
export { retouched, type Reverted } from './revert.ts';
export { shownLabel } from './label.ts';
export { take, type Asked, type Earlier, type Taken } from './take.ts';
export {
  addStep,
  acceptLoan,
  copyStep,
  deleteStep,
  moveStep,
  renameStep,
  setSlot,
  cutBorrowLoose,
  suppressStep,
  usersOfStep,
} from './steps.ts';
export { copyInstances, dissolveInstance, gatherInstances } from './gather.ts';
export {
  addSheet,
  addSheetView,
  changeSheet,
  breakSheetViews,
  changeSheetView,
  deleteSheet,
  issueSheet,
  putSize,
  removeSheetView,
  removeSize,
  setSheetField,
  type SheetChange,
  listPartsOnSheet,
  moveBalloon,
} from './sheets.ts';
export {
  addOutlines,
  changeOutlines,
  deleteOutlines,
  keepLaid,
  putCutPieces,
  removeCutPieces,
  type OutlinesChange,
} from './outlines.ts';
export { addGivenDrawing, layDrawingUnder, putGivenNumbers, removeGivenDrawing, removeGivenNumbers } from './brief.ts';
