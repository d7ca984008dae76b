// Makes src/api/types.gen.ts from the schema that go generate ./server writes.
import { readFile, writeFile } from "node:fs/promises";
import { compile } from "json-schema-to-typescript";

const schema = JSON.parse(await readFile(new URL("../src/api/wire.schema.json", import.meta.url), "utf8"));
const text = await compile({ ...schema, title: "Root" }, "Root", {
  bannerComment: "/* Made from the Go types by npm run types; do not edit. */",
  additionalProperties: false,
  style: { printWidth: 120 },
});
await writeFile(new URL("../src/api/types.gen.ts", import.meta.url), text);
