-- Up Migration

-- The application signs in as this role; it owns nothing, so row-level security binds it.
DO $$
BEGIN
  IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = 'oculon_app') THEN
    CREATE ROLE oculon_app LOGIN;
  END IF;
END
$$;

CREATE FUNCTION current_studio() RETURNS uuid
  LANGUAGE sql STABLE
  AS $$ SELECT nullif(current_setting('oculon.studio_id', true), '')::uuid $$;

CREATE TABLE studios (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  name text NOT NULL CHECK (name <> ''),
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE users (
  studio_id uuid NOT NULL REFERENCES studios (id),
  id uuid NOT NULL DEFAULT gen_random_uuid(),
  email text NOT NULL CHECK (email = lower(email)),
  display_name text NOT NULL CHECK (display_name <> ''),
  password_hash text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (studio_id, id),
  CONSTRAINT users_email_once UNIQUE (email)
);

CREATE TABLE sessions (
  studio_id uuid NOT NULL,
  user_id uuid NOT NULL,
  token_hash bytea NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  expires_at timestamptz NOT NULL,
  PRIMARY KEY (studio_id, token_hash),
  CONSTRAINT sessions_token_once UNIQUE (token_hash),
  FOREIGN KEY (studio_id, user_id) REFERENCES users (studio_id, id)
);

CREATE TABLE pieces (
  studio_id uuid NOT NULL REFERENCES studios (id),
  id uuid NOT NULL DEFAULT gen_random_uuid(),
  title text NOT NULL,
  file_name text NOT NULL,
  source bytea NOT NULL,
  summary jsonb NOT NULL,
  created_by uuid NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id, created_by) REFERENCES users (studio_id, id)
);

CREATE TABLE editions (
  studio_id uuid NOT NULL,
  id uuid NOT NULL DEFAULT gen_random_uuid(),
  piece_id uuid NOT NULL,
  name text NOT NULL DEFAULT '',
  head_seq integer NOT NULL DEFAULT 0 CHECK (head_seq >= 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id, piece_id) REFERENCES pieces (studio_id, id)
);

-- A gesture is one atomic step of the teacher: one or more operations that stand or fall together.
CREATE TABLE gestures (
  studio_id uuid NOT NULL,
  edition_id uuid NOT NULL,
  seq integer NOT NULL CHECK (seq > 0),
  gesture_id uuid NOT NULL,
  user_id uuid NOT NULL,
  operations jsonb NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (studio_id, edition_id, seq),
  CONSTRAINT gestures_once UNIQUE (studio_id, edition_id, gesture_id),
  FOREIGN KEY (studio_id, edition_id) REFERENCES editions (studio_id, id),
  FOREIGN KEY (studio_id, user_id) REFERENCES users (studio_id, id)
);

ALTER TABLE studios ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON studios USING (id = current_studio()) WITH CHECK (id = current_studio());

ALTER TABLE users ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON users USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());
ALTER TABLE sessions ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON sessions USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());
ALTER TABLE pieces ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON pieces USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());
ALTER TABLE editions ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON editions USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());
ALTER TABLE gestures ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON gestures USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

-- The two questions that must be asked before the studio is known. They answer for one key only.
CREATE FUNCTION find_sign_in(wanted text)
  RETURNS TABLE (studio_id uuid, user_id uuid, password_hash text)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public
  AS $$ SELECT u.studio_id, u.id, u.password_hash FROM users u WHERE u.email = lower(wanted) $$;

CREATE FUNCTION find_session(wanted bytea)
  RETURNS TABLE (studio_id uuid, user_id uuid, studio_name text, display_name text)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public
  AS $$
    SELECT s.studio_id, s.user_id, st.name, u.display_name
    FROM sessions s
    JOIN users u ON u.studio_id = s.studio_id AND u.id = s.user_id
    JOIN studios st ON st.id = s.studio_id
    WHERE s.token_hash = wanted AND s.expires_at > now()
  $$;

REVOKE ALL ON FUNCTION find_sign_in(text), find_session(bytea) FROM PUBLIC;
GRANT USAGE ON SCHEMA public TO oculon_app;
GRANT EXECUTE ON FUNCTION find_sign_in(text), find_session(bytea), current_studio() TO oculon_app;
GRANT SELECT ON studios, users TO oculon_app;
GRANT SELECT, INSERT, DELETE ON sessions TO oculon_app;
GRANT SELECT, INSERT, DELETE ON pieces TO oculon_app;
GRANT SELECT, INSERT, UPDATE, DELETE ON editions TO oculon_app;
GRANT SELECT, INSERT, DELETE ON gestures TO oculon_app;

-- Down Migration

DROP TABLE gestures, editions, pieces, sessions, users, studios;
DROP FUNCTION find_sign_in(text);
DROP FUNCTION find_session(bytea);
DROP FUNCTION current_studio();
