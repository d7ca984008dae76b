// Packs the built files once, so that the server need not.
import { readdir, readFile, writeFile } from "node:fs/promises";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";

const dist = new URL("../../server/dist/", import.meta.url);
for (const name of await readdir(dist, { recursive: true })) {
  if (!/\.(html|js|css|svg)$/.test(name)) continue;
  const file = new URL(name, dist);
  const body = await readFile(file);
  await writeFile(new URL(`${name}.gz`, dist), gzipSync(body, { level: 9 }));
  await writeFile(
    new URL(`${name}.br`, dist),
    brotliCompressSync(body, { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } }),
  );
}
await writeFile(new URL(".keep", dist), "");
