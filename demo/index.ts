/** The demo class as data, and simulated students who do an exercise through the same commands as anyone else. */
export { demoExercises, findDemoExercise, type ExerciseFile } from "./exercises";
export { LaneDriver } from "./laneDriver";
export { workLane, type Habits } from "./student";
export { demoClass, type DemoStudent } from "./people";
export { demoFloor } from "./floor";
export { benchTables, type BenchTables } from "./benchTables";
export { floorTables, type FloorTables } from "./floorTables";
