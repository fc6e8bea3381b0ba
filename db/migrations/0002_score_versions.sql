-- Up Migration

-- A piece keeps every file that it ever came as. `document` is the MusicXML that a file of another kind became.
CREATE TABLE score_versions (
  studio_id uuid NOT NULL,
  id uuid NOT NULL DEFAULT gen_random_uuid(),
  piece_id uuid NOT NULL,
  number integer NOT NULL CHECK (number > 0),
  file_name text NOT NULL,
  kind text NOT NULL CHECK (kind IN ('musicxml', 'abc', 'mei')),
  source bytea NOT NULL,
  document bytea CHECK ((document IS NULL) = (kind = 'musicxml')),
  part_index integer NOT NULL CHECK (part_index >= 0),
  -- Names of noteheads and bars in document order; null where they are n1, n2 … and b1, b2 …
  note_uids jsonb,
  bar_uids jsonb,
  next_note integer NOT NULL,
  next_bar integer NOT NULL,
  -- How the version before was carried over; null for the first.
  report jsonb,
  created_by uuid NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (studio_id, id),
  CONSTRAINT score_versions_number_once UNIQUE (studio_id, piece_id, number),
  FOREIGN KEY (studio_id, piece_id) REFERENCES pieces (studio_id, id),
  FOREIGN KEY (studio_id, created_by) REFERENCES users (studio_id, id)
);

INSERT INTO score_versions
  (studio_id, piece_id, number, file_name, kind, source, part_index, next_note, next_bar, created_by, created_at)
SELECT studio_id, id, 1, file_name, 'musicxml', source, 0,
  -- Tied noteheads are not counted in the summary; a gap in the numbers does no harm.
  (summary ->> 'notes')::integer * 4 + 1, (summary ->> 'bars')::integer + 1, created_by, created_at
FROM pieces;

ALTER TABLE pieces DROP COLUMN source, DROP COLUMN file_name;
ALTER TABLE pieces ADD COLUMN current_version integer NOT NULL DEFAULT 1;

-- The engraved page of a version under the corrections named by the key, ready to be sent.
CREATE TABLE pages (
  studio_id uuid NOT NULL,
  version_id uuid NOT NULL,
  content_key text NOT NULL,
  content bytea NOT NULL,
  first_line text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (studio_id, version_id, content_key),
  FOREIGN KEY (studio_id, version_id) REFERENCES score_versions (studio_id, id)
);

-- The plan of an edition as it stood at one operation.
CREATE TABLE plans (
  studio_id uuid NOT NULL,
  edition_id uuid NOT NULL,
  version_id uuid NOT NULL,
  head_seq integer NOT NULL,
  plan_key text NOT NULL,
  content bytea NOT NULL,
  summary jsonb NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (studio_id, edition_id, version_id, plan_key, head_seq),
  FOREIGN KEY (studio_id, edition_id) REFERENCES editions (studio_id, id),
  FOREIGN KEY (studio_id, version_id) REFERENCES score_versions (studio_id, id)
);

ALTER TABLE score_versions ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON score_versions USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());
ALTER TABLE pages ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON pages USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());
ALTER TABLE plans ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON plans USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

GRANT SELECT, INSERT, DELETE ON score_versions, pages, plans TO oculon_app;
GRANT UPDATE (title, summary, current_version) ON pieces TO oculon_app;

-- Down Migration

ALTER TABLE pieces ADD COLUMN source bytea, ADD COLUMN file_name text;
UPDATE pieces p SET source = v.source, file_name = v.file_name
FROM score_versions v
WHERE v.studio_id = p.studio_id AND v.piece_id = p.id AND v.number = p.current_version;
ALTER TABLE pieces ALTER COLUMN source SET NOT NULL, ALTER COLUMN file_name SET NOT NULL;
ALTER TABLE pieces DROP COLUMN current_version;
REVOKE UPDATE (title, summary) ON pieces FROM oculon_app;
DROP TABLE plans, pages, score_versions;
