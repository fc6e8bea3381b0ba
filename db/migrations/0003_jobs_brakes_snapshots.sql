-- Up Migration

-- Background work is kept by a role that sees no studio's tables, in a schema that its package looks after.
DO $$
BEGIN
  IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = 'oculon_jobs') THEN
    CREATE ROLE oculon_jobs LOGIN;
  END IF;
END
$$;

-- Who has tried to sign in too often. Keys are digests of addresses; nothing here belongs to a studio.
CREATE SCHEMA brakes;
CREATE TABLE brakes.tries (
  key text PRIMARY KEY,
  points integer NOT NULL DEFAULT 0,
  expire bigint
);
GRANT USAGE ON SCHEMA brakes TO oculon_app;
GRANT SELECT, INSERT, UPDATE, DELETE ON brakes.tries TO oculon_app;

-- The registers of an edition as they stood at one of its gestures: a long history is read from the newest of these.
CREATE TABLE snapshots (
  studio_id uuid NOT NULL,
  edition_id uuid NOT NULL,
  seq integer NOT NULL CHECK (seq > 0),
  registers jsonb NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (studio_id, edition_id, seq),
  FOREIGN KEY (studio_id, edition_id) REFERENCES editions (studio_id, id)
);

ALTER TABLE snapshots ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON snapshots USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());
GRANT SELECT, INSERT, DELETE ON snapshots TO oculon_app;

-- The teacher has read how a newer file was carried over.
ALTER TABLE score_versions ADD COLUMN report_read boolean NOT NULL DEFAULT false;
GRANT UPDATE (report_read) ON score_versions TO oculon_app;

-- A server without an account says how to make the first one.
CREATE FUNCTION has_accounts() RETURNS boolean
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public
  AS $$ SELECT EXISTS (SELECT FROM users) $$;
REVOKE ALL ON FUNCTION has_accounts() FROM PUBLIC;
GRANT EXECUTE ON FUNCTION has_accounts() TO oculon_app;

-- Down Migration

DROP FUNCTION has_accounts();
REVOKE UPDATE (report_read) ON score_versions FROM oculon_app;
ALTER TABLE score_versions DROP COLUMN report_read;
DROP TABLE snapshots;
DROP SCHEMA brakes CASCADE;
DROP SCHEMA IF EXISTS graphile_worker CASCADE;
