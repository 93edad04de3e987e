import type { JarSize, Product } from "../api/client";
import { contentText, jarText } from "../writing/format";

interface OfBatch {
  batch: number;
  code: string;
  product: Product;
  named?: string | null;
  size: JarSize;
}

/** Jars of one batch among those of others. */
export interface BatchOf<Jar> {
  batch: number;
  /** "260912-3, sauce" */
  name: string;
  /** Stands before the jars' numbers where several batches are in sight, so that no two are called alike. */
  letter: string;
  jars: Jar[];
}

/** The batches that jars are of, in their order; a letter each when there are several. */
export function batchesOf<Jar extends OfBatch>(jars: readonly Jar[]): BatchOf<Jar>[] {
  const found = new Map<number, BatchOf<Jar>>();
  for (const jar of jars) {
    const content = contentText(jar);
    // The product stands within a line; what somebody called it stays as it was written.
    const within = jar.product === "recipe" ? content : content.charAt(0).toLowerCase() + content.slice(1);
    const name = `${jar.code}, ${within}`;
    const one = found.get(jar.batch) ?? { batch: jar.batch, name, letter: "", jars: [] };
    one.jars.push(jar);
    found.set(jar.batch, one);
  }
  const all = [...found.values()];
  return all.length < 2
    ? all
    : all.map((one, place) => ({ ...one, letter: String.fromCharCode(65 + place) }));
}

/** "7 quarts, 2 pints" */
export function sizesText(jars: readonly { size: JarSize }[]): string {
  const counts = new Map<JarSize, number>();
  for (const { size } of jars) counts.set(size, (counts.get(size) ?? 0) + 1);
  return [...counts].map(([size, count]) => `${count} ${jarText(size, count)}`).join(", ");
}
