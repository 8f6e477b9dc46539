import type { Problem } from '@visograph/core/model';

/** What a violated constraint means, in words. The checks of core come first: these should never be seen. */
const meanings: Record<string, { kind: Problem['kind']; field: string; message: string }> = {
  device_space: {
    kind: 'device',
    field: 'unit',
    message: 'Another device was put into these units at the same moment. Choose a free unit.',
  },
  device_name: {
    kind: 'device',
    field: 'name',
    message: 'Another device took this name at the same moment. Choose another name.',
  },
  one_cable_per_port: {
    kind: 'cable',
    field: 'aPortId',
    message: 'Another cable was plugged into one of these ports at the same moment. Choose a free port.',
  },
  circuit_number: {
    kind: 'circuit',
    field: 'number',
    message: 'Another circuit took this number at the same moment. Choose another number.',
  },
  leg_number: {
    kind: 'leg',
    field: 'number',
    message: 'Somebody plugged in this leg at the same moment. Look at the cable again.',
  },
  address_is_one: {
    kind: 'address',
    field: 'address',
    message: 'Somebody gave the same address to this port at the same moment. Look at the port again.',
  },
  cable_label: {
    kind: 'cable',
    field: 'label',
    message: 'Another cable took this label at the same moment. Choose another label.',
  },
};

/** The problem behind a constraint violation (SQLSTATE class 23) or a step too large to keep (54000); else null. */
export function problemFromDatabase(error: unknown): Problem | null {
  const { code, constraint, nativeError } = error as {
    code?: string;
    constraint?: string;
    nativeError?: { code?: string; constraint?: string };
  };
  const state = code ?? nativeError?.code ?? '';
  if (state === '54000')
    return {
      ...{ code: 'impossible', kind: 'project', id: '', about: 'project', field: null },
      message:
        'This is more than the journal can hold as one step. Do it in parts, such as half of the rows.',
    };
  if (!state.startsWith('23')) return null;
  const name = constraint ?? nativeError?.constraint ?? '';
  const meaning = meanings[name] ?? {
    kind: 'project' as const,
    field: null,
    message: `The database refuses the change (${name}). Reload the page and try again.`,
  };
  return { code: 'conflict', id: '', about: meaning.kind, ...meaning };
}
