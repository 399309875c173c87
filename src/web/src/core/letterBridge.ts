/** The fonts that typed text is set in. */
export interface LetterBridge {
  Names(): string[];
  Begin(): void;
  Wanted(): string[];
  Range(name: string): string;
  Add(name: string, file: Uint8Array): void;
  SetAnew(page: number): void;
  Outline(font: number, glyph: number): string;
}
