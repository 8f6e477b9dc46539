import { describe, expect, it } from '@jest/globals';
import { create } from 'qrcode';
import { qrCode } from './qrCode.ts';

describe('the QR code of a label', () => {
  const texts = [
    'A',
    '1',
    'https://net.marrow.example/t/ä ö 光',
    'X'.repeat(300),
    ...Array.from(
      { length: 120 },
      (_, at) =>
        `HTTPS://NET${at % 7}.MARROW.EXAMPLE/T/${((at * 2654435761) >>> 0).toString(16).toUpperCase()}-${'7F'.repeat(at % 23)}`,
    ),
  ];

  it('is the one that the library itself would choose, module by module', () => {
    const chosen = new Set<number | undefined>();
    for (const text of texts) {
      const own = create(/^[0-9A-Z $%*+\-./:]+$/.test(text) ? [{ data: text, mode: 'alphanumeric' }] : text, {
        errorCorrectionLevel: 'M',
      });
      chosen.add(own.maskPattern);
      const { size, dark } = qrCode(text);
      expect(size).toBe(own.modules.size);
      expect(Buffer.from(dark).equals(Buffer.from(own.modules.data))).toBe(true);
    }
    // The texts are of enough sorts that every mask has its turn.
    expect(chosen.size).toBe(8);
  });
});
