import { runCommand } from "./commands";

process.exitCode = await runCommand(process.argv.slice(2), {
  input: process.stdin,
  print: (line) => process.stdout.write(`${line}\n`),
  complain: (line) => process.stderr.write(`${line}\n`),
});
