-- Up Migration

-- What was handed out: the file itself, so that it can be printed again as it was, and the marks that it had.
CREATE TABLE copies (
  id uuid NOT NULL DEFAULT gen_random_uuid(),
  studio_id uuid NOT NULL REFERENCES studios (id),
  edition_id uuid NOT NULL,
  seq integer NOT NULL CHECK (seq >= 0),
  for_whom text NOT NULL CHECK (length(for_whom) <= 80),
  options jsonb NOT NULL,
  marks jsonb NOT NULL,
  file_name text NOT NULL,
  pdf bytea NOT NULL,
  created_by uuid NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id, edition_id) REFERENCES editions (studio_id, id),
  FOREIGN KEY (studio_id, created_by) REFERENCES users (studio_id, id)
);
CREATE INDEX copies_of_edition ON copies (studio_id, edition_id, created_at DESC);

ALTER TABLE copies ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON copies USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());
GRANT SELECT, INSERT, DELETE ON copies TO oculon_app;

-- Down Migration

DROP TABLE copies;
