export declare const corePublished: string;
export declare const coreFolder: string;
export declare const pdfPackage: string;
export declare const pdfVersion: string;
export declare const build: string;
