-- Up Migration

-- Drills in a row with their minutes and tempos.
CREATE TABLE routines (
  id uuid NOT NULL DEFAULT gen_random_uuid(),
  studio_id uuid NOT NULL REFERENCES studios (id),
  title text NOT NULL CHECK (length(title) BETWEEN 1 AND 80),
  items jsonb NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  changed_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (studio_id, id)
);

ALTER TABLE routines ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON routines USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());
GRANT SELECT, INSERT, UPDATE, DELETE ON routines TO oculon_app;

-- Down Migration

DROP TABLE routines;
