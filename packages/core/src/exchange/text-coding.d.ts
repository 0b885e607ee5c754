/** Part of every JavaScript host, browser or Node, though not of the language's own library. */
declare class TextEncoder {
  encode(text: string): Uint8Array;
}
declare class TextDecoder {
  decode(bytes: Uint8Array): string;
}
declare function btoa(text: string): string;
declare function atob(text: string): string;
