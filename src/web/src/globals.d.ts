/** Where Core of this build is served from. */
declare const __CORE__: string;
/** What this build is called. */
declare const __BUILD__: string;
