// What the linter says of files that are not there: reads [{ file, text }] and writes the ids of rules each breaks. One
// process for all: most of its time goes into reading the types of the whole program.
import { text } from 'node:stream/consumers';
import { ESLint } from 'eslint';

const eslint = new ESLint();
const broken = [];
for (const { file, text: code } of JSON.parse(await text(process.stdin))) {
  const [{ messages }] = await eslint.lintText(code, { filePath: file });
  broken.push(messages.map(({ ruleId }) => ruleId));
}
process.stdout.write(JSON.stringify(broken));
