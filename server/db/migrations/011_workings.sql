-- How a helper came to a value of the job: [{"key", "value", "text"}], shown beside the field while it holds the value.
ALTER TABLE job ADD COLUMN workings jsonb NOT NULL DEFAULT '[]'
  CHECK (jsonb_typeof(workings) = 'array' AND jsonb_array_length(workings) <= 12);
