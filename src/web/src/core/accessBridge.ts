/** Who may do what. */
export interface AccessBridge {
  May(role: string, act: string, own: boolean): boolean;
  MaySeePast(role: string, isClosed: boolean): boolean;
  MayTouch(touch: string, role: string, isTheirs: boolean): boolean;
  MayAsGuest(role: string, act: string): boolean;
  MayShare(role: string, madeIt: boolean, isFolder: boolean): boolean;
}
