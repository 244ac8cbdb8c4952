-- Pictures lie in parts: one part is stored or read while others wait no longer than for any small thing. Their SHA-256
-- tells one content from another.
CREATE TABLE attachment_part (
  attachment_id text NOT NULL REFERENCES attachment ON DELETE CASCADE,
  seq integer NOT NULL CHECK (seq >= 0),
  bytes bytea NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (attachment_id, seq)
);
ALTER TABLE attachment
  ADD COLUMN size integer NOT NULL DEFAULT 0 CHECK (size >= 0),
  ADD COLUMN sha256 text NOT NULL DEFAULT '',
  -- false until its last part is there
  ADD COLUMN whole boolean NOT NULL DEFAULT true;
UPDATE attachment SET size = length(bytes), sha256 = encode(sha256(bytes), 'hex');
INSERT INTO attachment_part (attachment_id, seq, bytes)
  SELECT id, n, substr(bytes, 1 + n * 65536, 65536)
  FROM attachment, generate_series(0, (length(bytes) - 1) / 65536) AS n;
ALTER TABLE attachment DROP COLUMN bytes;
