/** Addresses of databases in parts, as people fill them in. The server says what is allowed. */

export type Kind = 'postgresql' | 'mariadb' | 'mysql' | 'sqlite' | 'h2';

export interface Parts {
  kind: Kind;
  host: string;
  port: string;
  database: string;
  /** Whole path of the database's file. */
  file: string;
  settings: Record<string, string>;
}

/** What is different in how the kinds are reached. */
export const KINDS: Record<
  Kind,
  { label: string; port?: string; tls?: string; tlsWords?: string[]; schema?: string }
> = {
  postgresql: {
    label: 'PostgreSQL',
    port: '5432',
    tls: 'sslmode',
    tlsWords: ['disable', 'require', 'verify-ca', 'verify-full'],
    schema: 'currentSchema',
  },
  mariadb: {
    label: 'MariaDB',
    port: '3306',
    tls: 'sslMode',
    tlsWords: ['disable', 'trust', 'verify-ca', 'verify-full'],
  },
  mysql: {
    label: 'MySQL',
    port: '3306',
    tls: 'sslMode',
    tlsWords: ['disable', 'trust', 'verify-ca', 'verify-full'],
  },
  sqlite: { label: 'SQLite' },
  h2: { label: 'H2', schema: 'SCHEMA' },
};

/** What the words for TLS mean. */
export const TLS: Record<string, string> = {
  '': 'as the database wants it',
  disable: 'none',
  require: 'encrypted, whoever answers',
  trust: 'encrypted, whoever answers',
  'verify-ca': 'encrypted, certificate verified',
  'verify-full': 'encrypted, certificate and host verified',
};

export function blank(kind: Kind): Parts {
  return { kind, host: '', port: '', database: '', file: '', settings: {} };
}

/** The parts of an address as it is kept; null if it is none of these kinds. */
export function takeApart(address: string): Parts | null {
  const head = /^jdbc:(postgresql|mariadb|mysql|sqlite|h2):/.exec(address);
  if (!head) return null;
  const kind = head[1] as Kind;
  const rest = address.slice(head[0].length);
  const parts = blank(kind);
  if (kind === 'sqlite') return { ...parts, file: rest };
  if (kind === 'h2') {
    const [path = '', ...settings] = rest.split(';');
    return { ...parts, file: path.replace(/^file:/, ''), settings: pairs(settings) };
  }
  const server = /^\/\/(\[[^\]]*\]|[^/:?]*)(?::(\d+))?\/([^?]*)(?:\?(.*))?$/.exec(rest);
  if (!server) return null;
  const [, host = '', port = '', database = '', settings = ''] = server;
  return {
    ...parts,
    host,
    port,
    database: decodeURIComponent(database),
    settings: pairs(settings.split('&').filter(Boolean), decodeURIComponent),
  };
}

function pairs(settings: string[], decoded = (text: string) => text): Record<string, string> {
  return Object.fromEntries(
    settings.map((setting) => {
      const at = setting.indexOf('=');
      return [setting.slice(0, at), decoded(setting.slice(at + 1))];
    }),
  );
}

/** The address that parts make. */
export function putTogether(parts: Parts): string {
  const settings = Object.entries(parts.settings).filter(([, value]) => value !== '');
  switch (parts.kind) {
    case 'sqlite':
      return `jdbc:sqlite:${parts.file.trim()}`;
    case 'h2':
      return (
        `jdbc:h2:file:${parts.file.trim().replace(/\.mv\.db$/, '')}` +
        settings.map(([name, value]) => `;${name}=${value}`).join('')
      );
    default: {
      const port = parts.port.trim() === '' ? '' : `:${parts.port.trim()}`;
      const query = settings
        .map(([name, value]) => `${name}=${encodeURIComponent(value)}`)
        .join('&');
      return (
        `jdbc:${parts.kind}://${parts.host.trim() || 'localhost'}${port}/` +
        encodeURIComponent(parts.database.trim()) +
        (query ? `?${query}` : '')
      );
    }
  }
}

/** A connection's address as it is read by people: the database, and where it is. */
export function told(address: string): string {
  const parts = takeApart(address);
  if (!parts) return address;
  return (
    parts.file.replace(/^.*\//, '') ||
    `${parts.database} on ${parts.host}${parts.port ? `:${parts.port}` : ''}`
  );
}
