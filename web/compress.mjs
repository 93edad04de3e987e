// Every file of the front end a second and a third time, as small as it gets: the program hands out what a browser takes.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
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
}
