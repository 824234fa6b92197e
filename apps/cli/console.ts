/** What a command talks to: lines in, lines out, complaints apart. */
export interface Console {
  input: NodeJS.ReadableStream;
  print(line: string): void;
  complain(line: string): void;
}
