// reader.ts — the bytes of sources over HTTP; pictures and fonts as the server decodes and unpacks them, the same ones that the
// command line and exports see.
import { GeometryError, PICTURE_HEADER, PictureReplySchema, type SourceReader } from '../../../core/index.ts';
import { loadFonts } from './fonts.ts';

export const reader: SourceReader = {
  bytes: async (asset, name) => bytesOf(await fetchAsset(asset, name)),
  async picture(asset, name) {
    const response = await fetchAsset(asset, name, '/pixels');
    const { width, height, dpi } = PictureReplySchema.parse(JSON.parse(response.headers.get(PICTURE_HEADER)!));
    return { picture: { width, height, data: new Uint8ClampedArray(await response.arrayBuffer()) }, dpi };
  },
  fonts: (choice) => loadFonts(choice, async (asset, name) => bytesOf(await fetchAsset(asset, name, '/font'))),
};

const bytesOf = async (response: Response) => new Uint8Array(await response.arrayBuffer());

async function fetchAsset(asset: string, name: string, part = ''): Promise<Response> {
  const response = await fetch(`/api/assets/${asset}${part}`);
  if (response.ok) return response;
  const said = (await response.json().catch(() => null))?.error?.message;
  throw new GeometryError(
    'bad-file',
    response.status === 404 || !said
      ? `The bytes of “${name}” are not on the server any more; bring it in again.`
      : said,
  );
}
