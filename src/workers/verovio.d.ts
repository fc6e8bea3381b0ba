/** The engraver's modules carry no types of their own. */
declare module 'verovio/wasm' {
  export default function createVerovioModule(): Promise<unknown>;
}
declare module 'verovio/esm' {
  export class VerovioToolkit {
    constructor(module: unknown);
    setOptions(options: Readonly<Record<string, string | number | boolean>>): void;
    /** Truthy when the data could be read. */
    loadData(data: string): unknown;
    getPageCount(): number;
    renderToSVG(page: number): string;
    getLog(): string;
    renderToTimemap(options: object): unknown;
    getMIDIValuesForElement(id: string): unknown;
    getMEI(options: object): string;
    /** As base64. */
    renderToMIDI(): string;
  }
}
