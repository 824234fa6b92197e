import { benchCore } from "./core";
import { benchServer } from "./server";

/** Prints each goal as a figure and as a ratio against a baseline measured in the same run. `core` or `server` picks one half. */
const which = process.argv[2];
if (which === undefined || which === "core") benchCore();
if (which === undefined || which === "server") await benchServer();
