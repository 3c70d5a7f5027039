import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import subsetFont from 'subset-font';
import { defineConfig, type Plugin } from 'vite';

// The faces the printed sheets are set in, packed for the screen: the letters of the languages of Europe, and every
// sign a measure is told with. Usual web subsets lack the eighths, which would then come from another face.
const FACES = ['AlegreyaSans_400Regular', 'AlegreyaSans_700Bold', 'BricolageGrotesque_700Bold'];
const RANGES = [
  [0x20, 0x17f],
  [0x218, 0x21b],
  [0x2c6, 0x2dd],
  [0x2010, 0x2044],
  [0x2070, 0x209c],
  [0x20ac, 0x20ac],
  [0x2122, 0x2122],
  [0x2150, 0x215f],
  [0x2190, 0x2193],
  [0x2212, 0x2215],
  [0x2248, 0x2265],
];

const fonts = (): Plugin => ({
  name: 'fonts',
  async buildStart() {
    const signs = RANGES.flatMap(([from = 0, to = 0]) =>
      Array.from({ length: to - from + 1 }, (_, i) => String.fromCodePoint(from + i)),
    ).join('');
    mkdirSync('src/fonts', { recursive: true });
    for (const face of FACES) {
      const whole = readFileSync(`../crates/formats/fonts/${face}.ttf`);
      writeFileSync(`src/fonts/${face}.woff2`, await subsetFont(whole, signs, { targetFormat: 'woff2' }));
    }
  },
});

// Packed once here rather than at every request.
const packed = (): Plugin => ({
  name: 'packed',
  apply: 'build',
  closeBundle() {
    const pack = (folder: string) => {
      for (const name of readdirSync(folder)) {
        const path = join(folder, name);
        if (statSync(path).isDirectory()) pack(path);
        else if (/\.(js|css|html|svg)$/.test(name)) {
          const bytes = readFileSync(path);
          const params = {
            [constants.BROTLI_PARAM_QUALITY]: 11,
            [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length,
          };
          writeFileSync(`${path}.br`, brotliCompressSync(bytes, { params }));
          writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }));
        }
      }
    };
    pack('dist');
  },
});

export default defineConfig({
  plugins: [fonts(), react(), tailwindcss(), packed()],
  // Served from the same machine: one file is quicker than many.
  build: { chunkSizeWarningLimit: 800 },
  server: { proxy: { '/api': 'http://127.0.0.1:4747' }, fs: { allow: ['..'] } },
});
