// Every text of the front end as small as it gets, in two forms: the program hands out the one that a browser takes.
import { readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";

const TEXT = /\.(js|css|html|svg|webmanifest)$/;

for (const entry of readdirSync("dist", { recursive: true, withFileTypes: true })) {
  if (!entry.isFile() || !TEXT.test(entry.name)) continue;
  const file = join(entry.parentPath, entry.name);
  const bytes = readFileSync(file);
  const quality = { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY };
  writeFileSync(`${file}.br`, brotliCompressSync(bytes, { params: quality }));
  writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }));
  rmSync(file);
}
