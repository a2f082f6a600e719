// decode.ts — bytes of a picture file to pixels: upright, sRGB, eight bits, with transparency; the first frame of an
// animated one. The decoders are handed in, so that this stays free of Node; what they may be asked to do is decided here,
// from the bytes and never from a name.
import { GeometryError } from '../base/errors.ts';
import { PICTURE_LIMITS, type Picture } from './types.ts';

export const PICTURE_FORMATS = ['png', 'jpeg', 'webp', 'tiff', 'gif', 'bmp'] as const;
export type PictureFormat = (typeof PICTURE_FORMATS)[number];

const FORMAT_NAMES: Readonly<Record<PictureFormat, string>> = {
  png: 'PNG',
  jpeg: 'JPEG',
  webp: 'WebP',
  tiff: 'TIFF',
  gif: 'GIF',
  bmp: 'BMP',
};

/** The format that a file's first bytes announce (the signatures of the formats' own specifications); null for others. */
export function sniffPicture(bytes: Uint8Array): PictureFormat | null {
  const begins = (...signature: number[]) => signature.every((byte, i) => bytes[i] === byte);
  const text = (from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));
  if (begins(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'png';
  if (begins(0xff, 0xd8, 0xff)) return 'jpeg';
  if (text(0, 4) === 'RIFF' && text(8, 12) === 'WEBP') return 'webp';
  if (begins(0x49, 0x49, 0x2a, 0) || begins(0x4d, 0x4d, 0, 0x2a)) return 'tiff';
  if (text(0, 6) === 'GIF87a' || text(0, 6) === 'GIF89a') return 'gif';
  if (text(0, 2) === 'BM' && bytes.length > 26) return 'bmp';
  return null;
}

export interface DecodedPicture {
  readonly picture: Picture;
  readonly format: PictureFormat;
  /** Pixels to the inch that the file states; null where it does not, or states what is put there by default. */
  readonly dpi: number | null;
}

/** As much of sharp as is used here. */
interface Pipeline {
  metadata(): Promise<{ width?: number; height?: number; density?: number }>;
  autoOrient(): Pipeline;
  toColourspace(space: string): Pipeline;
  ensureAlpha(): Pipeline;
  raw(options: { depth: 'uchar' }): Pipeline;
  toBuffer(options: {
    resolveWithObject: true;
  }): Promise<{ data: Uint8Array; info: { width: number; height: number } }>;
}

export interface Decoders {
  /** sharp */
  readonly open: (
    bytes: Uint8Array,
    options: { limitInputPixels: number; failOn: 'error'; page: number; pages: number },
  ) => Pipeline;
  /** bmp-ts, asked for red, green, blue, alpha. */
  readonly bmp: (bytes: Uint8Array) => { data: Uint8Array; width: number; height: number };
}

/** Below this a density is what programs write when they know none. */
const TRUE_DPI = 100;

/**
 * @throws {GeometryError} 'bad-file' for other formats and damaged files, 'too-large' for more bytes or pixels than
 * {@link PICTURE_LIMITS}; a decompression bomb is refused by what its header announces
 */
export async function decodePicture(bytes: Uint8Array, decoders: Decoders): Promise<DecodedPicture> {
  if (bytes.length > PICTURE_LIMITS.bytes) {
    const mb = (n: number) => Math.round(n / 2 ** 20);
    throw new GeometryError(
      'too-large',
      `The picture has ${mb(bytes.length)} MB; ${mb(PICTURE_LIMITS.bytes)} MB is the most. Save it smaller or compressed.`,
    );
  }
  const format = sniffPicture(bytes);
  if (!format) throw new GeometryError('bad-file', `This is not a picture that can be read: ${whatItIs(bytes)}.`);
  if (format === 'bmp') return { picture: fromBmp(bytes, decoders), format, dpi: null };
  try {
    const options = { limitInputPixels: PICTURE_LIMITS.pixels, failOn: 'error', page: 0, pages: 1 } as const;
    const {
      width = 0,
      height = 0,
      density,
    } = await decoders.open(bytes, { ...options, limitInputPixels: 2 ** 52 }).metadata();
    checkSize(width, height);
    const upright = decoders
      .open(bytes, options)
      .autoOrient()
      .toColourspace('srgb')
      .ensureAlpha()
      .raw({ depth: 'uchar' });
    const { data, info } = await upright.toBuffer({ resolveWithObject: true });
    return {
      picture: pictureFrom(data, info.width, info.height),
      format,
      dpi: density && density >= TRUE_DPI ? density : null,
    };
  } catch (error) {
    if (error instanceof GeometryError) throw error;
    throw damaged(format);
  }
}

function fromBmp(bytes: Uint8Array, { bmp }: Decoders): Picture {
  // Width and height of BITMAPINFOHEADER, the height negative where rows go down.
  const header = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  checkSize(header.getInt32(18, true), Math.abs(header.getInt32(22, true)));
  try {
    const { data, width, height } = bmp(bytes);
    const picture = pictureFrom(data, width, height);
    // Most files leave the fourth byte empty and mean opaque.
    if (picture.data.every((v, i) => i % 4 !== 3 || v === 0))
      for (let p = 3; p < picture.data.length; p += 4) picture.data[p] = 255;
    return picture;
  } catch {
    throw damaged('bmp');
  }
}

function pictureFrom(data: Uint8Array, width: number, height: number): Picture {
  if (data.length !== 4 * width * height) throw new Error('The decoder gave another number of bytes.');
  return { width, height, data: new Uint8ClampedArray(data) };
}

function checkSize(width: number, height: number): void {
  if (!(width > 0 && height > 0)) {
    throw new GeometryError(
      'bad-file',
      `The picture’s header says ${width} × ${height} pixels: there is nothing in it.`,
    );
  }
  const { pixels, side } = PICTURE_LIMITS;
  if (width * height > pixels || width > side || height > side) {
    const most = Math.floor(Math.sqrt(pixels));
    throw new GeometryError(
      'too-large',
      `The picture’s header says ${width} × ${height} pixels; ${pixels / 1e6} million (${most} × ${most}) are the most. Resample it first.`,
    );
  }
}

function damaged(format: PictureFormat): GeometryError {
  return new GeometryError(
    'bad-file',
    `The ${FORMAT_NAMES[format]} file is damaged or ends early. Save it anew from the program that made it.`,
  );
}

/** What the first bytes of something else look like. */
function whatItIs(bytes: Uint8Array): string {
  const taken = 'PNG, JPEG, WebP, TIFF, GIF and BMP are taken';
  if (bytes.length === 0) return `the file is empty; ${taken}`;
  const head = String.fromCharCode(...bytes.subarray(0, 16));
  if (head.startsWith('%PDF')) return `it is a PDF file; ${taken}`;
  if (head.slice(4, 8) === 'ftyp') return `it is a film or an HEIF picture; ${taken}`;
  if (/^\s*</.test(head)) return `it is a text file with tags; ${taken}`;
  return `its first bytes belong to none of the known formats; ${taken}`;
}

/** What to say of a picture whose edges are only a few pixels apart; null for one that is large enough. */
export function lowResolution({ width, height }: Pick<Picture, 'width' | 'height'>): string | null {
  const factor = enlargement({ width, height });
  if (factor === null) return null;
  return `${Math.max(width, height)} px across: expect soft corners; resample ×${factor} before tracing.`;
}

/** By how much such a picture is to be enlarged; null for one that is large enough. */
export function enlargement({ width, height }: Pick<Picture, 'width' | 'height'>): number | null {
  const longest = Math.max(width, height);
  return longest < LOW ? Math.min(8, Math.ceil(ENOUGH / longest)) : null;
}

const LOW = 400;
const ENOUGH = 700;
