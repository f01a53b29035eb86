import type { ReadProblem, Span } from '../../text/problem.js';

/** An argument of a call or an entry of a list; map entries and named arguments carry a name. */
export interface Argument {
  name?: string;
  value: Expression;
}

export type Expression = Span &
  (
    | { type: 'string'; raw: string; quote: string }
    | { type: 'number'; text: string }
    | { type: 'name'; name: string }
    | { type: 'member'; object: Expression; name: string }
    | { type: 'call'; callee: Expression; args: Argument[]; body: Statement[] | null }
    | { type: 'index'; object: Expression; index: Expression }
    | { type: 'list'; items: Argument[] }
    | { type: 'binary'; operator: string; left: Expression; right: Expression }
    | { type: 'block'; body: Statement[] }
    | { type: 'unknown'; text: string }
  );

export type Statement = Span &
  (
    | { type: 'expression'; value: Expression }
    | { type: 'assign'; target: Expression; operator: '=' | '+=' | '-='; value: Expression }
    | { type: 'declare'; name: string; value: Expression | null; delegated: boolean }
    | { type: 'conditional'; body: Statement[] }
  );

export interface GradleScript {
  statements: Statement[];
  problems: ReadProblem[];
}
