/**
 * A single-file component of Vue as a module of TypeScript, its template compiled into it.
 * @param file says where it stands, in what is told of it
 * @throws Error that says what is wrong with it
 */
export async function vueModule(file: string, text: string): Promise<string> {
  // It is large, and only few ask for it.
  const { compileScript, parse } = await import('vue/compiler-sfc');
  const { descriptor, errors } = parse(text, { filename: file });
  if (errors.length) throw new Error(`${file}: ${errors[0].message}`);
  // One without a script is compiled as one whose script says nothing; an empty one would count as none.
  const whole = descriptor.scriptSetup
    ? descriptor
    : parse(`<script setup lang="ts">\n// Nothing.\n</script>\n${text}`, { filename: file }).descriptor;
  return compileScript(whole, { id: file, inlineTemplate: true, isProd: true }).content;
}
