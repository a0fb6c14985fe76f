import fs from 'node:fs';
import QRCode from 'qrcode';
import sharp from 'sharp';

/** A picture of a printed label: the code of an address on paper, a little off the middle. PNG. */
export async function pictureOfCode(address: string): Promise<Buffer> {
  const code = await QRCode.toBuffer(address, { width: 420, margin: 4 });
  return sharp({ create: { width: 900, height: 700, channels: 3, background: '#d8d2c4' } })
    .composite([{ input: code, left: 260, top: 120 }])
    .png()
    .toBuffer();
}

/** The same as a film in one colour, as a camera would see it: Y4M, 4:2:0. */
export async function filmOfCode(address: string, file: string): Promise<void> {
  const [width, height] = [640, 480];
  const code = await QRCode.toBuffer(address, { width: 380, margin: 4 });
  const grey = await sharp({ create: { width, height, channels: 3, background: '#ffffff' } })
    .composite([{ input: code, left: 130, top: 50 }])
    .greyscale()
    .raw()
    .toBuffer();
  const luma =
    grey.length === width * height ? grey : grey.filter((_, i) => i % (grey.length / (width * height)) === 0);
  const chroma = Buffer.alloc((width * height) / 2, 128);
  const frame = Buffer.concat([Buffer.from('FRAME\n'), luma, chroma]);
  fs.writeFileSync(
    file,
    Buffer.concat([Buffer.from(`YUV4MPEG2 W${width} H${height} F10:1 Ip A1:1 C420jpeg\n`), frame, frame, frame]),
  );
}

/** A photo as a phone stores it when held upright: the sensor's landscape with a mark that it is to be turned. JPEG. */
export const phonePhoto = (): Promise<Buffer> =>
  sharp({ create: { width: 1600, height: 1200, channels: 3, background: '#6b5d3a' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer();
