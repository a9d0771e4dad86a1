/** Reads a value, and says at which path it is not as expected. */
type Read<T> = (value: unknown, path: string) => T;

function failAt(path: string, expected: string, value: unknown): never {
  if (value === undefined) {
    throw new TypeError(`${path}: expected ${expected}, but it is missing`);
  }
  const found =
    value === null ? "null" : Array.isArray(value) ? "array" : typeof value;
  throw new TypeError(`${path}: expected ${expected}, found ${found}`);
}

function unknownAt(value: unknown): unknown {
  return value;
}

function stringAt(value: unknown, path: string): string {
  return typeof value === "string" ? value : failAt(path, "a string", value);
}

function numberStringAt(value: unknown, path: string): `${number}` {
  const text = stringAt(value, path);
  return isNumberString(text)
    ? text
    : failAt(path, "a number in a string", value);
}

function isNumberString(text: string): text is `${number}` {
  return text.trim() !== "" && Number.isFinite(Number(text));
}

function booleanStringAt(value: unknown, path: string): `${boolean}` {
  const text = stringAt(value, path);
  return text === "true" || text === "false"
    ? text
    : failAt(path, '"true" or "false"', value);
}

function constantOf<T extends string | boolean>(known: T): Read<T> {
  return (value, path) =>
    value === known ? known : failAt(path, JSON.stringify(known), value);
}

function oneOf<T extends string>(...known: T[]): Read<T> {
  return (value, path) =>
    known.find((one) => one === value) ??
    failAt(path, `one of ${known.join(", ")}`, value);
}

function numberAt(value: unknown, path: string): number {
  return typeof value === "number" ? value : failAt(path, "a number", value);
}

/** A number, rounded if it is an integer that no number can hold. */
function roundedAt(value: unknown, path: string): number {
  return numberAt(typeof value === "bigint" ? Number(value) : value, path);
}

function bigintAt(value: unknown, path: string): bigint {
  return typeof value === "bigint" || Number.isInteger(value)
    ? BigInt(value as bigint | number)
    : failAt(path, "an integer", value);
}

/** Stands before the digits of an integer that no number can hold. */
const EXACT = "\u0000";

/** Parses JSON; integers that a number would round become bigints. */
function parseExactly(text: string): unknown {
  const tokens =
    /("[^"\\]*(?:\\.[^"\\]*)*")|(?<![-+.\deE])-?\d{16,}(?![.\deE])/g;
  const exact = text.replace(tokens, (token: string, quoted?: string) =>
    quoted !== undefined || Number.isSafeInteger(Number(token))
      ? token
      : `"\\u0000${token}"`,
  );
  return JSON.parse(exact, (_key, value: unknown) =>
    typeof value === "string" && /^\0-?\d+$/.test(value)
      ? BigInt(value.slice(EXACT.length))
      : value,
  );
}

/** Writes JSON; bigints become integers. */
function formatExactly(value: unknown): string {
  const marked = JSON.stringify(value, (_key, one: unknown) =>
    typeof one === "bigint" ? `${EXACT}${String(one)}` : one,
  );
  return marked.replace(/"\\u0000(-?\d+)"/g, "$1");
}

/** The least and the greatest that fits: of a number, of a string's characters, of an array's items. */
interface Limits {
  least?: number;
  above?: number;
  most?: number;
  below?: number;
  step?: number;
}

function within<T extends number | string | readonly unknown[]>(
  read: Read<T>,
  limits: Limits,
): Read<T> {
  const { least, above, most, below, step } = limits;
  return (value, path) => {
    const found = read(value, path);
    const size =
      typeof found === "number" ? found : Array.from<unknown>(found).length;
    const broken = [
      least !== undefined && size < least && `at least ${String(least)}`,
      above !== undefined && size <= above && `above ${String(above)}`,
      most !== undefined && size > most && `at most ${String(most)}`,
      below !== undefined && size >= below && `below ${String(below)}`,
      step !== undefined &&
        size % step !== 0 &&
        `a multiple of ${String(step)}`,
    ].find((expected) => expected !== false);
    if (broken !== undefined) {
      const what = typeof found === "number" ? "" : "a length of ";
      throw new RangeError(`${path}: expected ${what}${broken}, found ${size}`);
    }
    return found;
  };
}

function booleanAt(value: unknown, path: string): boolean {
  return typeof value === "boolean" ? value : failAt(path, "a boolean", value);
}

function dateAt(value: unknown, path: string): ExactDate {
  const date = new ExactDate(stringAt(value, path));
  return Number.isNaN(date.getTime())
    ? failAt(path, "a date and a time", value)
    : date;
}

/** A date that is written back as it was read, with its offset and all its digits. */
export class ExactDate extends Date {
  readonly text: string;

  constructor(text: string) {
    super(text);
    this.text = text;
  }

  override toJSON(): string {
    const isAsRead = Date.parse(this.text) === this.getTime();
    return isAsRead ? this.text : this.toISOString();
  }
}

function nullOr<T>(read: Read<T>): Read<T | null> {
  return (value, path) => (value === null ? null : read(value, path));
}

/** Reads a value, or a word that stands where there is none. */
function orWord<T, W extends string>(
  read: Read<T>,
  ...words: W[]
): Read<T | W> {
  return (value, path) =>
    words.find((word) => word === value) ?? read(value, path);
}

function arrayOf<T>(read: Read<T>): Read<T[]> {
  return (value, path) =>
    Array.isArray(value)
      ? value.map((item: unknown, index) =>
          read(item, `${path}[${String(index)}]`),
        )
      : failAt(path, "an array", value);
}

function tupleOf<T extends readonly unknown[]>(
  ...reads: { [Index in keyof T]: Read<T[Index]> }
): Read<T> {
  return (value, path) => {
    const items = arrayOf(unknownAt)(value, path);
    if (items.length !== reads.length) {
      failAt(path, `an array of ${String(reads.length)}`, value);
    }
    const read = (item: unknown, index: number) =>
      reads[index]?.(item, `${path}[${String(index)}]`);
    return items.map(read) as unknown as T;
  };
}

function objectAt(value: unknown, path: string): Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value)
    ? (value as Record<string, unknown>)
    : failAt(path, "an object", value);
}

function mapOf<T>(read: Read<T>): Read<Record<string, T>> {
  return (value, path) => {
    const entries = Object.entries(objectAt(value, path));
    return Object.fromEntries(
      entries.map(([key, one]) => [key, read(one, `${path}.${key}`)]),
    );
  };
}

/** What stands under the keys that are none of those known. */
function others<T>(
  object: Record<string, unknown>,
  known: readonly string[],
  read: Read<T>,
  path: string,
): Record<string, T> {
  const rest = Object.entries(object).filter(([key]) => !known.includes(key));
  return mapOf(read)(Object.fromEntries(rest), path);
}

function field<T>(
  object: Record<string, unknown>,
  key: string,
  read: Read<T>,
  path: string,
): T {
  const value = Object.hasOwn(object, key) ? object[key] : undefined;
  return read(value, `${path}.${key}`);
}

function fieldOr<T>(
  object: Record<string, unknown>,
  key: string,
  read: Read<T>,
  path: string,
  absent: T,
): T {
  return Object.hasOwn(object, key) ? field(object, key, read, path) : absent;
}

function optional<Key extends string, T>(
  object: Record<string, unknown>,
  key: Key,
  read: Read<T>,
  path: string,
): Partial<Record<Key, T>> {
  if (!Object.hasOwn(object, key)) {
    return {};
  }
  const found = { [key]: field(object, key, read, path) };
  return found as Record<Key, T>;
}
