// api.ts — requests to the server. A reply that is not 2xx becomes an ApiError with the server’s own sentence.
import type {
  AssetReply,
  CreateExport,
  ErrorReply,
  JobReply,
  Project,
  ProjectReply,
  ProjectSummary,
} from '../../core/index.ts';

export class ApiError extends Error {
  readonly code: string;
  readonly status: number;
  /** Set on 409: the project as it stands on the server. */
  readonly current: ProjectReply | undefined;
  constructor(status: number, error: ErrorReply['error'], current?: ProjectReply) {
    const fields = error.fields?.map((field) => `${field.path}: ${field.message}`).join('; ');
    super(fields ? `${error.message} ${fields}` : error.message);
    this.status = status;
    this.code = error.code;
    this.current = current;
  }
}

async function request<T>(path: string, init?: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, init);
  } catch {
    throw new ApiError(0, { code: 'offline', message: 'The server cannot be reached; your changes are kept here.' });
  }
  if (response.status === 204) return undefined as T;
  const body = await response.json().catch(() => null);
  if (response.ok) return body as T;
  const error = (body as ErrorReply | null)?.error ?? {
    code: 'unexpected',
    message: `The server answered ${response.status}.`,
  };
  throw new ApiError(response.status, error, (body as { current?: ProjectReply } | null)?.current);
}

const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

const bytes = (body: BodyInit): RequestInit => ({
  method: 'POST',
  headers: { 'content-type': 'application/octet-stream' },
  body,
});

export const api = {
  projects: () => request<ProjectSummary[]>('/projects'),
  project: (id: string) => request<ProjectReply>(`/projects/${id}`),
  createProject: (name: string) => request<ProjectReply>('/projects', json('POST', { name })),
  saveProject: (id: string, base: number, document: Project) =>
    request<{ revision: number }>(`/projects/${id}`, json('PUT', { base, document })),
  deleteProject: (id: string) => request<void>(`/projects/${id}`, { method: 'DELETE' }),
  bringProjectBack: (id: string) => request<void>(`/projects/${id}/bring-back`, { method: 'POST' }),
  renameProject: (id: string, name: string) =>
    request<{ revision: number }>(`/projects/${id}`, json('PATCH', { name })),
  copyProject: (id: string) => request<ProjectReply>(`/projects/${id}/copy`, { method: 'POST' }),
  savePicture: (id: string, revision: number, picture: Blob) =>
    request<void>(`/projects/${id}/picture?revision=${revision}`, { ...bytes(picture), method: 'PUT' }),
  restoreProject: (id: string) => request<ProjectReply>(`/projects/${id}/restore`, { method: 'POST' }),
  openProjectFile: (file: Blob) => request<ProjectReply>('/projects/file', bytes(file)),
  restoreDemo: () => request<ProjectReply>('/demo/restore', { method: 'POST' }),
  uploadAsset: (asset: Uint8Array<ArrayBuffer>) => request<AssetReply>('/assets', bytes(asset)),
  startExport: (id: string, wanted: CreateExport) => request<JobReply>(`/projects/${id}/exports`, json('POST', wanted)),
  job: (id: string) => request<JobReply>(`/jobs/${id}`),
  cancelJob: (id: string) => request<JobReply>(`/jobs/${id}/cancel`, { method: 'POST' }),
  retryJob: (id: string) => request<JobReply>(`/jobs/${id}/retry`, { method: 'POST' }),
};

export const exportUrl = (jobId: string) => `/api/exports/${jobId}/file`;

/** @param revision the one it shows: another one is another picture */
export const pictureUrl = (id: string, revision: number) => `/api/projects/${id}/picture?revision=${revision}`;

export const projectFileUrl = (id: string) => `/api/projects/${id}/file`;
