/** What browsers, workers and Node have alike, beyond the language itself. */
declare function atob(text: string): string;
declare class TextDecoder {
  decode(bytes: Uint8Array): string;
}
declare class TextEncoder {
  encode(text: string): Uint8Array;
}
