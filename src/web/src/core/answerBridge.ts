/** What people say to marks. */
export interface AnswerBridge {
  Say(page: number, spot: string, text: string, mentions: string[], ink: Uint8Array, now: number): Uint8Array;
  Withdraw(page: number, answer: string, now: number): Uint8Array;
  Ink(page: number, spot: string, answer: string): Uint8Array;
}
