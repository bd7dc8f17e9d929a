import type { InputFile } from '@tovel/core';
/** All files of a folder as a batch. */
export declare function folderFiles(folder: string): Promise<InputFile[]>;
