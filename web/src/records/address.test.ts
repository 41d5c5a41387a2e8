import { describe, expect, it } from 'vitest';
import { blank, putTogether, takeApart, told } from './address';

describe('addresses', () => {
  it.each([
    'jdbc:postgresql://db.example:5433/marina?currentSchema=berths&sslmode=verify-full',
    'jdbc:postgresql://localhost/marina%20north',
    'jdbc:mariadb://127.0.0.1:3306/marina?sslMode=trust',
    'jdbc:mysql://[::1]/marina',
    'jdbc:sqlite:/srv/databases/marina.db',
    'jdbc:h2:file:/srv/databases/marina;DATABASE_TO_LOWER=TRUE;IFEXISTS=TRUE',
  ])('come apart and together again: %s', (address) => {
    expect(putTogether(takeApart(address)!)).toBe(address);
  });

  it('have their host and file as they are typed', () => {
    expect(putTogether({ ...blank('mariadb'), host: ' db ', port: '3307', database: 'm&n' })).toBe(
      'jdbc:mariadb://db:3307/m%26n',
    );
    expect(putTogether({ ...blank('postgresql'), database: 'marina' })).toBe(
      'jdbc:postgresql://localhost/marina',
    );
    expect(putTogether({ ...blank('h2'), file: '/srv/marina.mv.db' })).toBe(
      'jdbc:h2:file:/srv/marina',
    );
    expect(putTogether({ ...blank('postgresql'), database: 'm', settings: { sslmode: '' } })).toBe(
      'jdbc:postgresql://localhost/m',
    );
  });

  it('are told by what they lead to', () => {
    expect(told('jdbc:mariadb://db:3307/marina?sslMode=trust')).toBe('marina on db:3307');
    expect(told('jdbc:h2:file:/srv/marina;MODE=Oracle')).toBe('marina');
    expect(told('jdbc:other:x')).toBe('jdbc:other:x');
  });
});
