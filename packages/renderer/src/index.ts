export { LinkedBuild } from './linked_build.ts';
export { AppBuild, type Built, bundledPage } from './app_build.ts';
export { runningApp, type RunningApp } from './app_site.ts';
export { findChromium, launchChromium } from './chromium.ts';
export {
  appOf,
  drawReference,
  drawRunning,
  type FileStore,
  type ReferenceKind,
  REFERENCES,
  sweepView,
} from './draw_views.ts';
export { type DrawnPage, type DrawOrder, Renderer, type Site, type SiteAnswer } from './renderer.ts';
export { sourcePage, type SourcePage } from './source_site.ts';
export { listenTo } from './listen_to.ts';
export { drawLibrary, type DrawnLibrary } from './draw_library.ts';
export { bridgeScript, notesScript } from './in_page_scripts.ts';
export { buildVendor, vendorFile } from './vendor.ts';
export { decoded, differencePicture } from './pictures.ts';
