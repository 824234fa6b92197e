import type { ParamsOf, ReadPath, Replies } from "@probe-lane/contract";
import { queryOptions } from "@tanstack/react-query";
import { api, type ApiError } from "./api";

const filled = <P extends ReadPath>(path: P, params: ParamsOf<P>): string =>
  path.replace(/:(\w+)/g, (_, name: string) => (params as Record<string, string>)[name] ?? "");

/** Where the query cache keeps what an address answered: its path, and the ids in it. */
export const keyOf = <P extends ReadPath>(path: P, params: ParamsOf<P>) => [path, params] as const;

/** Reads an address of the contract's table; what comes back has the type that the table says. */
export const reading = <P extends ReadPath>(path: P, params: ParamsOf<P>) =>
  queryOptions<Replies[P], ApiError, Replies[P], ReturnType<typeof keyOf<P>>>({
    queryKey: keyOf(path, params),
    queryFn: () => api.get<Replies[P]>(filled(path, params)),
  });
