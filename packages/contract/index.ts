/** What server and web say to each other: one schema for each request, one type for each reply, one table of errors. */
export { errorStatus, errorWords, type ErrorBody, type ErrorCode } from "./errors";
export * from "./wire";
export type { ParamsOf, ReadPath, Replies } from "./replies";
export * from "./names";
