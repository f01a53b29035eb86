import type { ThreeWayChange } from '../core/roster/compare.js';
import type { FieldProblem } from '../core/formats/yaml/read.js';
import { faults, type FaultCode } from '../api/faults.js';
import type { FieldFault, Problem } from '../api/problem.js';

/** A failure that the caller can understand and act on. */
export class ServiceError extends Error {
  readonly code: FaultCode;
  readonly fix: string | undefined;
  readonly errors: FieldFault[] | undefined;
  readonly changes: ThreeWayChange[] | undefined;

  constructor(
    code: FaultCode,
    detail: string,
    more: { fix?: string; errors?: FieldFault[]; changes?: ThreeWayChange[]; cause?: unknown } = {},
  ) {
    super(detail, { cause: more.cause });
    this.name = 'ServiceError';
    this.code = code;
    this.fix = more.fix;
    this.errors = more.errors;
    this.changes = more.changes;
  }

  get status(): number {
    return faults[this.code].status;
  }

  /** The response body, in the form of RFC 9457. */
  toProblem(): Problem {
    const { status, title } = faults[this.code];
    return {
      type: `urn:syndexa:problem:${this.code}`,
      title,
      status,
      code: this.code,
      detail: this.message,
      ...(this.fix ? { fix: this.fix } : {}),
      ...(this.errors ? { errors: this.errors } : {}),
      ...(this.changes ? { changes: this.changes } : {}),
    };
  }
}

/** Problems of a document as the fields of an error. */
export function faultsOf(problems: readonly FieldProblem[]): FieldFault[] {
  return problems.map(({ field, message, fix, place }) => ({
    field,
    message,
    ...(fix ? { fix } : {}),
    ...(place ? { place } : {}),
  }));
}

/** Throws when there is anything wrong. */
export function refuse(problems: readonly FieldProblem[]): void {
  if (problems.length > 0) throw refusal(problems);
}

/** The error that says what is wrong with some values. */
export function refusal(problems: readonly FieldProblem[]): ServiceError {
  const [first] = problems;
  const detail =
    first && problems.length === 1
      ? `${first.field}: ${first.message}`
      : `${problems.length} values are invalid.`;
  return new ServiceError('invalid', detail, {
    errors: faultsOf(problems),
    // Only advice that fits every field is given for the whole; each field has its own.
    ...(first?.fix && problems.every(({ fix }) => fix === first.fix) ? { fix: first.fix } : {}),
  });
}
