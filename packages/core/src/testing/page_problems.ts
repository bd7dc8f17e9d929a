import { type DefaultTreeAdapterTypes as T, parse } from 'parse5';
import ts from 'typescript';
import type { EmittedProject } from '../emit/emitted.ts';

/** What in emitted plain pages could run or load what is not the app's own, or cannot be read as the language that it is in. */
export function pageProblems({ files }: EmittedProject): string[] {
  return files.flatMap((file) => {
    if (!('text' in file)) return [];
    if (file.path.endsWith('.js')) {
      const { diagnostics = [] } = ts.transpileModule(file.text, {
        reportDiagnostics: true,
        fileName: file.path,
        compilerOptions: { allowJs: true, target: ts.ScriptTarget.ES2022 },
      });
      return diagnostics.map(
        (one) => `${file.path}: ${ts.flattenDiagnosticMessageText(one.messageText, ' ')}`,
      );
    }
    return file.path.endsWith('.html') ? inPage(file.path, parse(file.text)) : [];
  });
}

function inPage(path: string, document: T.Document): string[] {
  const found: string[] = [];
  const visit = (node: T.Document | T.ChildNode): void => {
    if ('attrs' in node)
      for (const { name, value } of node.attrs) {
        if (name.startsWith('on') || name === 'srcdoc') found.push(`${path}: ${name} on <${node.tagName}>`);
        if (
          /^(href|src|action|xlink:href|data-back|data-otherwise)$/.test(name) &&
          /^\s*(javascript|data|vbscript):/i.test(value)
        )
          found.push(`${path}: ${name}="${value.slice(0, 40)}"`);
      }
    if (node.nodeName === 'script') {
      const { attrs, childNodes } = node as T.Element;
      const src = attrs.find(({ name }) => name === 'src')?.value ?? '';
      if (childNodes.length || !/^(\.\.\/)*(app\/\w+|page|not-found)\.js$/.test(src))
        found.push(`${path}: a script “${src}”`);
    }
    if (/^(iframe|object|embed|base)$/.test(node.nodeName)) found.push(`${path}: <${node.nodeName}>`);
    if ('childNodes' in node) node.childNodes.forEach(visit);
  };
  visit(document);
  return found;
}
