export declare const corePublished: string;
export declare const coreFolder: string;
export declare const build: string;
