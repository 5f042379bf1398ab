export interface Task {
  readonly name: string;
  readonly program: string;
  readonly args: readonly string[];
  readonly env?: Readonly<Record<string, string>>;
  readonly after?: readonly string[];
  readonly weight?: number;
}
export interface Ended {
  readonly name: string;
  readonly code: number | null;
  readonly seconds: number;
  readonly output: string;
}
export function runTasks(
  tasks: readonly Task[],
  done: (ended: Ended) => void,
  options?: { slots?: number }
): Promise<void>;
