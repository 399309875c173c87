/** Who may do what. */
export interface AccessBridge {
  May(role: string, act: string, own: boolean): boolean;
}
