-- Up Migration

-- States of an edition that were given a name: the gesture that they stand at.
CREATE TABLE milestones (
  id uuid NOT NULL DEFAULT gen_random_uuid(),
  studio_id uuid NOT NULL REFERENCES studios (id),
  edition_id uuid NOT NULL,
  seq integer NOT NULL CHECK (seq >= 0),
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
  created_by uuid NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id, edition_id) REFERENCES editions (studio_id, id),
  FOREIGN KEY (studio_id, created_by) REFERENCES users (studio_id, id)
);
CREATE INDEX milestones_of_edition ON milestones (studio_id, edition_id, created_at DESC);

ALTER TABLE milestones ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON milestones USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());
GRANT SELECT, INSERT, DELETE ON milestones TO oculon_app;

-- Pieces that were removed can be brought back; tags are the teacher's own words.
ALTER TABLE pieces ADD COLUMN removed_at timestamptz;
ALTER TABLE pieces ADD COLUMN tags text[] NOT NULL DEFAULT '{}';
ALTER TABLE pieces ADD COLUMN composer text CHECK (length(composer) <= 120);
GRANT UPDATE ON pieces TO oculon_app;

-- How many notes have ink; null where no program has counted yet.
ALTER TABLE editions ADD COLUMN inked integer;

-- Down Migration

ALTER TABLE editions DROP COLUMN inked;
ALTER TABLE pieces DROP COLUMN composer, DROP COLUMN tags, DROP COLUMN removed_at;
DROP TABLE milestones;
