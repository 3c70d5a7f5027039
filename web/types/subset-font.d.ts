// The package ships no types of its own.
declare module 'subset-font' {
  export default function subsetFont(
    font: Buffer,
    text: string,
    options: { targetFormat: 'woff2' },
  ): Promise<Buffer>;
}
