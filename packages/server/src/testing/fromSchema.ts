/** Values made from a JSON Schema, as it stands in the OpenAPI document, and the same bent here and there. */

export type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
export interface Schema {
  type?: string | string[];
  enum?: Json[];
  const?: Json;
  anyOf?: Schema[];
  oneOf?: Schema[];
  allOf?: Schema[];
  properties?: Record<string, Schema>;
  required?: string[];
  items?: Schema;
  additionalProperties?: Schema | boolean;
  format?: string;
  minimum?: number;
  maximum?: number;
  minItems?: number;
  minLength?: number;
}

/** A generator of numbers below 1 from a seed (the 32-bit mixer of D. Lehmer's congruence, 1951). */
export function lehmer(seed: number): () => number {
  let state = (seed % 2147483646) + 1;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}

/** Texts and numbers that break what expects others. */
const evil: readonly Json[] = [
  ...[
    '',
    ' ',
    '\u0000',
    'a\u0000b',
    '\ud800',
    '\udfff x',
    'İ',
    'ẞ',
    '\u202e',
    '%00',
    '../..',
    "'; DROP TABLE job; --",
  ],
  ...['0000-01-01', '9999-99-99', '2026-02-30', 'NaN', '1e999', '__proto__', 'constructor', 'x'.repeat(5000)],
  ...[
    '00000000-0000-0000-0000-000000000000',
    'FFFFFFFF-FFFF-4FFF-8FFF-FFFFFFFFFFFF',
    'not-a-uuid',
    '10.0.0.1/33',
  ],
  ...[0, -1, 1.5, 1e15, -1e308, 2 ** 31, 2 ** 53, 1e-320],
  ...[null, true, false, [], {}, [[[[[]]]]], { a: { b: { c: {} } } }],
];

export class Maker {
  constructor(
    readonly random: () => number,
    /** Ids of things that there are. */
    private readonly ids: readonly string[],
  ) {}

  pick<T>(from: readonly T[]): T {
    const found = from[Math.floor(this.random() * from.length)];
    if (found === undefined) throw new Error('nothing to pick from');
    return found;
  }
  chance(share: number): boolean {
    return this.random() < share;
  }

  id(): string {
    const id = this.pick(this.ids);
    return this.chance(0.2) ? id.toUpperCase() : id;
  }

  private text({ format, minLength = 0 }: Schema): string {
    if (format === 'uuid') return this.id();
    if (format === 'email') return `p${Math.floor(this.random() * 1e6)}@marrow.example`;
    if (format === 'date-time') return '2026-11-30T12:00:00Z';
    if (format === 'date') return '2030-06-30';
    return this.pick(['kq-acc-1', 'gi1/1', 'Quay', 'x', '10.1.0.0/24', 'A long name of something']).padEnd(
      minLength,
      'x',
    );
  }

  /** A value that the schema allows, as far as it says so. */
  of(schema: Schema, depth = 0): Json {
    if (schema.const !== undefined) return schema.const;
    if (schema.enum !== undefined) return this.pick(schema.enum);
    const choices = schema.anyOf ?? schema.oneOf;
    if (choices !== undefined) return this.of(this.pick(choices), depth);
    if (schema.allOf !== undefined) return this.of(schema.allOf[0] ?? {}, depth);
    const type = Array.isArray(schema.type) ? this.pick(schema.type) : schema.type;
    if (type === 'string') return this.text(schema);
    if (type === 'integer' || type === 'number') {
      const [least, most] = [schema.minimum ?? 0, Math.min(schema.maximum ?? 100, 1000)];
      return Math.floor(least + this.random() * (most - least));
    }
    if (type === 'boolean') return this.chance(0.5);
    if (type === 'array') {
      const length = Math.max(schema.minItems ?? 0, Math.floor(this.random() * 3));
      return Array.from({ length }, () => this.of(schema.items ?? {}, depth + 1));
    }
    if (type === 'object' || schema.properties !== undefined) return this.objectOf(schema, depth);
    return type === 'null' || depth > 4 ? null : this.pick(evil);
  }

  private objectOf({ properties = {}, required = [], additionalProperties }: Schema, depth: number): Json {
    const made: { [key: string]: Json } = {};
    for (const [key, its] of Object.entries(properties))
      if (required.includes(key) || this.chance(0.6)) made[key] = this.of(its, depth + 1);
    if (typeof additionalProperties === 'object' && this.chance(0.5))
      made[this.pick(['name', 'x', 'label'])] = this.of(additionalProperties, depth + 1);
    return made;
  }

  /** The same with one part of it replaced, left out or added. */
  bent(value: Json): Json {
    if (this.chance(0.25) || value === null || typeof value !== 'object') return this.pick(evil);
    if (Array.isArray(value)) {
      if (value.length === 0) return [this.pick(evil)];
      const at = Math.floor(this.random() * value.length);
      return value.map((part, index) => (index === at ? this.bent(part) : part));
    }
    const keys = Object.keys(value);
    if (keys.length === 0 || this.chance(0.1))
      return { ...value, [this.pick(['id', 'extra', 'kind'])]: this.pick(evil) };
    const key = this.pick(keys);
    const { [key]: part = null, ...rest } = value;
    return this.chance(0.15) ? rest : { ...rest, [key]: this.bent(part) };
  }
}
