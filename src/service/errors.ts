import { faults, type FaultCode, type FieldFault, type Problem } from '../api/problem.js';

/** A failure that the caller can understand and act on. */
export class ServiceError extends Error {
  readonly code: FaultCode;
  readonly fix: string | undefined;
  readonly errors: FieldFault[] | undefined;
  readonly changes: unknown[] | undefined;

  constructor(
    code: FaultCode,
    detail: string,
    more: { fix?: string; errors?: FieldFault[]; changes?: unknown[]; cause?: unknown } = {},
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

  /** The body that goes out, as RFC 9457 has it. */
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
