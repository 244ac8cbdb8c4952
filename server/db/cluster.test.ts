import { expect, test } from 'vitest'
import { fileTrouble } from './cluster'

/** What the engine and the system say of files, in words. */

test.each([
  [{ code: 'EROFS', message: 'EROFS: read-only file system, open x' }, 'may only be read'],
  [{ code: 'ENOSPC', message: 'no space' }, 'the disk is full'],
  [
    { code: 'XX001', message: 'invalid page in block 3 of relation base/5/16384' },
    'block 3 of its file base/5/16384',
  ],
  [{ message: 'could not read block 2 in file "base/5/1": read only 0 of 8192 bytes' }, 'its file base/5/1'],
])('%j in words', (error, words) => expect(fileTrouble(error)).toContain(words))
test('what is no trouble with files is not called so', () =>
  expect(fileTrouble(new Error('relation "x" does not exist'))).toBeNull())
