// Picture files of every kind, whole and broken, through the real decoders.
import { encode } from 'bmp-ts';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { PICTURE_LIMITS, sniffPicture } from '../core/index.ts';
import { decodeAsset } from './decode.ts';

/** Left half red, right half blue, 40 × 20. */
const raw = Buffer.from(Array.from({ length: 800 }, (_, i) => (i % 40 < 20 ? [200, 40, 30] : [20, 40, 180])).flat());
const image = () => sharp(raw, { raw: { width: 40, height: 20, channels: 3 } });
const pixel = (picture: { width: number; data: Uint8ClampedArray }, x: number, y: number) => [
  ...picture.data.subarray(4 * (y * picture.width + x), 4 * (y * picture.width + x) + 4),
];
const near = (actual: number[], expected: number[], within: number) => {
  for (const [i, v] of expected.entries()) expect(Math.abs(actual[i]! - v)).toBeLessThanOrEqual(within);
};

describe('pictures', () => {
  it.each([
    ['png', () => image().png().toBuffer(), 0],
    ['jpeg', () => image().jpeg({ quality: 95 }).toBuffer(), 8],
    ['webp', () => image().webp({ lossless: true }).toBuffer(), 0],
    ['tiff', () => image().tiff({ compression: 'lzw' }).toBuffer(), 0],
    ['gif', () => image().gif().toBuffer(), 8],
  ] as const)('of format %s come in as eight-bit colour', async (format, make, within) => {
    const bytes = await make();
    expect(sniffPicture(bytes)).toBe(format);
    const { picture, format: found } = await decodeAsset(bytes);
    expect([found, picture.width, picture.height]).toEqual([format, 40, 20]);
    near(pixel(picture, 5, 10), [200, 40, 30, 255], within);
    near(pixel(picture, 35, 10), [20, 40, 180, 255], within);
  });

  it('of format bmp, whose fourth byte means nothing', async () => {
    const abgr = Buffer.alloc(4 * 800);
    for (let i = 0; i < 800; i++) abgr.set([0, raw[3 * i + 2]!, raw[3 * i + 1]!, raw[3 * i]!], 4 * i);
    const { data } = encode({ data: abgr, width: 40, height: 20, bitPP: 24 } as Parameters<typeof encode>[0]);
    const { picture, format } = await decodeAsset(data);
    expect(format).toBe('bmp');
    expect([pixel(picture, 5, 10), pixel(picture, 35, 10)]).toEqual([
      [200, 40, 30, 255],
      [20, 40, 180, 255],
    ]);
  });

  it('are turned upright as their metadata says', async () => {
    // EXIF orientation 6: the camera was held a quarter turn; shown clockwise, left comes to the top.
    const { picture } = await decodeAsset(
      await image().jpeg({ quality: 95 }).withMetadata({ orientation: 6 }).toBuffer(),
    );
    expect([picture.width, picture.height]).toEqual([20, 40]);
    near(pixel(picture, 10, 5), [200, 40, 30], 8);
  });

  it('keep their transparency', async () => {
    const clear = await image().ensureAlpha(0.5).png().toBuffer();
    expect(pixel((await decodeAsset(clear)).picture, 5, 10)).toEqual([200, 40, 30, 127]);
  });

  it('of sixteen bits and of four inks come in as what they show', async () => {
    const deep = await image().toColourspace('rgb16').png().toBuffer();
    near(pixel((await decodeAsset(deep)).picture, 5, 10), [200, 40, 30, 255], 1);
    const inks = await image().toColourspace('cmyk').tiff().toBuffer();
    const [r, g, b] = pixel((await decodeAsset(inks)).picture, 5, 10);
    expect(r! > 150 && g! < 110 && b! < 110).toBe(true);
  });

  it('that move come in as their first frame', async () => {
    const frames = Buffer.concat([raw, Buffer.from(raw.map((v) => 255 - v))]);
    const moving = await sharp(frames, { raw: { width: 40, height: 40, channels: 3, pageHeight: 20 } })
      .gif()
      .toBuffer();
    const { picture } = await decodeAsset(moving);
    expect([picture.width, picture.height]).toEqual([40, 20]);
    near(pixel(picture, 5, 10), [200, 40, 30], 8);
  });

  it('say their density where it is a true one', async () => {
    expect((await decodeAsset(await image().png().withMetadata({ density: 300 }).toBuffer())).dpi).toBe(300);
    expect((await decodeAsset(await image().jpeg().withMetadata({ density: 72 }).toBuffer())).dpi).toBeNull();
  });
});

describe('what is no picture, or a broken one', () => {
  const reason = (bytes: Uint8Array) =>
    decodeAsset(bytes).then(
      () => 'none',
      (error: Error) => error.message,
    );

  it('is read for what it is, not for its name', async () => {
    // A JPEG that someone called .png has no name here: its bytes decide.
    expect((await decodeAsset(await image().jpeg().toBuffer())).format).toBe('jpeg');
    expect(await reason(Buffer.from('hello, I am text'))).toMatch(/none of the known formats; PNG, JPEG/);
    expect(await reason(Buffer.from('%PDF-1.7 …'))).toMatch(/it is a PDF file/);
    expect(await reason(Buffer.from('<html></html>'))).toMatch(/text file with tags/);
    expect(await reason(Buffer.alloc(0))).toMatch(/the file is empty/);
  });

  it.each(['png', 'jpeg', 'webp', 'gif', 'tiff'] as const)('cut short (%s) says so', async (format) => {
    const noise = Buffer.from(Array.from({ length: 3 * 200 * 200 }, (_, i) => (i * 7919) % 251));
    const bytes = await sharp(noise, { raw: { width: 200, height: 200, channels: 3 } })
      [format]()
      .toBuffer();
    expect(await reason(bytes.subarray(0, Math.floor(bytes.length / 2)))).toMatch(/is damaged or ends early/);
  });

  it('with a header of 60,000 × 60,000 is refused before anything is unpacked', async () => {
    const bomb = await image().png().toBuffer();
    bomb.writeUInt32BE(60_000, 16);
    bomb.writeUInt32BE(60_000, 20);
    expect(await reason(bomb)).toMatch(/60000 × 60000 pixels; 40 million .* are the most|damaged/);
    const bmp = Buffer.alloc(64);
    bmp.write('BM');
    bmp.writeInt32LE(60_000, 18);
    bmp.writeInt32LE(-60_000, 22);
    expect(await reason(bmp)).toMatch(/60000 × 60000 pixels; 40 million/);
  });

  it('of no width, or of too many bytes, is refused', async () => {
    const bmp = Buffer.alloc(64);
    bmp.write('BM');
    expect(await reason(bmp)).toMatch(/0 × 0 pixels: there is nothing in it/);
    expect(await reason(Buffer.alloc(PICTURE_LIMITS.bytes + 1))).toMatch(/64 MB is the most/);
  });
});
