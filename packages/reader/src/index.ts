export { FrameReader } from './frame_reader.ts';
