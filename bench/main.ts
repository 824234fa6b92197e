import { benchCore } from "./core";
import { benchFrames } from "./frames";
import { benchProgram } from "./program";
import { benchRegrade } from "./regrade";
import { benchSchool } from "./school";
import { benchServer } from "./server";

/**
 * Prints each goal as a figure and as a ratio against a baseline measured in the same run. `core`, `program`, `server`,
 * `regrade`, `school` or `frames` picks one part.
 */
const which = process.argv[2];
if (which === undefined || which === "core") benchCore();
if (which === undefined || which === "program") benchProgram();
if (which === undefined || which === "server") await benchServer();
if (which === undefined || which === "regrade") await benchRegrade();
if (which === undefined || which === "school") await benchSchool();
if (which === undefined || which === "frames") await benchFrames();
