import type { EmittedProject } from '../emit/emitted.ts';
import type { EmissionProgress } from '../emit/progress.ts';
import type { TargetName } from '../emit/targets.ts';
import type { Project } from '../model/project.ts';
import { generatedCode } from './generated_code.ts';
import { withHandWritten } from './hand_written.ts';

/**
 * The code base as it is handed over: as it is generated, with what people wrote by hand within Tovel brought together with that.
 * @param target a name of `targets`
 */
export async function deliveredCode(
  project: Project,
  name: string,
  target: TargetName,
  tell?: EmissionProgress,
): Promise<EmittedProject> {
  return withHandWritten(await generatedCode(project, name, target, tell), project.app.handWritten);
}
