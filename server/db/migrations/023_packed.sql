-- Blocks are packed: a block's length no longer follows from its rows and channels. What is inside is looked at before it
-- is stored.
ALTER TABLE log_block DROP CONSTRAINT IF EXISTS log_block_check;
