/** The demo class as data, and tables of how well simulated students are told their mistakes. */
export { demoExercises, findDemoExercise, type ExerciseFile } from "./exercises";
export { demoClass, type DemoStudent } from "./people";
export { demoFloor } from "./floor";
export { benchTables, type Tally } from "./benchTables";
export { proveOutTables, type ProveOutTables } from "./proveOutTables";
export { floorTables, type FloorTables } from "./floorTables";
